import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { JobRow } from '@melto/services/kernel/jobs';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { JobsMenu } from './JobsMenu';
import { JobsContext } from './useJobs';

const job = (change: Partial<JobRow>): JobRow =>
  ({
    id: 1,
    kind: 'build-profile',
    conditionId: 4,
    state: 'running',
    fraction: 0.42,
    words: 'Fitting the model',
    resultId: null,
    error: null,
    madeMs: 0,
    finishedMs: null,
    ...change,
  }) as JobRow;
const open = (jobs: readonly JobRow[]) =>
  show(
    <JobsContext.Provider value={jobs}>
      <JobsMenu />
    </JobsContext.Provider>,
  );

describe('background work in the header', () => {
  it('is quiet while nothing runs', async () => {
    const { user } = open([]);
    await user.click(screen.getByRole('button', { name: 'no work' }));
    expect(await screen.findByText('Nothing runs, nothing ended lately.')).toBeTruthy();
  });

  it.each([
    ['build-profile', 'Profile 42 %'],
    ['make-chart', 'Chart 42 %'],
    ['sample-house', 'Sample house 42 %'],
  ])('names %s in the words of the trade, with its progress', (kind, words) => {
    open([job({ kind })]);
    expect(screen.getByRole('button', { name: words })).toBeTruthy();
  });

  it('counts what else runs, and not what has ended', () => {
    open([job({}), job({ id: 2 }), job({ id: 3, state: 'done', finishedMs: 5 })]);
    expect(screen.getByRole('button', { name: 'Profile 42 % +1' })).toBeTruthy();
  });

  it('shows how far each is, what failed and why, and where a result is', async () => {
    const { user } = open([
      job({}),
      job({ id: 2, state: 'failed', finishedMs: 5, error: 'The reading was withdrawn.' }),
      job({ id: 3, state: 'done', finishedMs: 6, resultId: 77 }),
    ]);
    await user.click(screen.getByRole('button', { name: /Profile 42/ }));
    const bar = await screen.findByRole('progressbar');
    expect(bar.getAttribute('aria-valuenow')).toBe('42');
    expect(screen.getByText('Fitting the model')).toBeTruthy();
    expect(screen.getByText('The reading was withdrawn.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Open the result' }).getAttribute('href')).toBe(
      '/conditions/4/profile?version=77',
    );
  });

  it('can be cancelled, and says so where it cannot', async () => {
    const { sent } = fakeServer({
      'POST /api/jobs/1/cancel': new Refused(409, { title: 'It has ended.', detail: 'Open its result.' }),
    });
    const { user } = open([job({})]);
    await user.click(screen.getByRole('button', { name: /Profile 42/ }));
    await user.click(await screen.findByRole('button', { name: 'Cancel' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(await screen.findByText('It has ended. Open its result.')).toBeTruthy();
  });
});
