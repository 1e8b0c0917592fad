import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { ChainFinding } from '@melto/core/chain/chainCause';
import { fakeServer, Refused } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { JobCheckDialog } from './JobCheckDialog';
import { JobChecks } from './JobChecks';

const PRINTED = { printId: 3, code: 'HRN-0007', sheets: ['HRN-0007-1'], restUntilMs: 0 };
const hrefs = (): (string | null)[] => screen.getAllByRole('link').map((link) => link.getAttribute('href'));

const jobOf = (sent: readonly Sent[]): unknown =>
  [...sent].reverse().find(({ path }) => path.endsWith('/job-checks'))?.body;
const FORM = { paper: 'a4', reader: 'strip', patchSize: 'usual' };

describe('a job check', () => {
  const open = (simulated: boolean) => {
    const close = vi.fn();
    const server = fakeServer({
      'POST /api/conditions/4/job-checks': PRINTED,
      'GET /api/source-profiles': [],
    });
    return {
      ...show(<JobCheckDialog conditionId={4} simulated={simulated} onClose={close} />),
      ...server,
      close,
    };
  };
  const choose = async (
    user: ReturnType<typeof open>['user'],
    label: string,
    option: RegExp,
  ): Promise<void> => {
    await user.click(screen.getByRole('combobox', { name: label }));
    await user.click(within(screen.getByRole('listbox')).getByRole('option', { name: option }));
  };

  it('asks for the intent of the jobs, and tells a simulated device what happens', async () => {
    const { user, sent, close } = open(true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Print' }).disabled).toBe(true);
    await choose(user, 'Intent of your jobs', /^perceptual/);
    await choose(user, 'Simulated device', /applied twice/);
    await user.click(screen.getByRole('button', { name: 'Print' }));
    await waitFor(() => expect(close).toHaveBeenCalledOnce());
    expect(jobOf(sent)).toEqual({ intent: 'perceptual', happens: 'twice', ...FORM });
  });

  it('of a device of the house’s own makes pictures that carry their profile', async () => {
    const { user, sent, close } = open(false);
    expect(screen.queryByRole('combobox', { name: 'Simulated device' })).toBeNull();
    await choose(user, 'Intent of your jobs', /^relative colorimetric with/);
    await user.click(screen.getByRole('button', { name: 'Make the picture' }));
    expect(await screen.findByRole('heading', { name: 'Print HRN-0007' })).toBeTruthy();
    expect(jobOf(sent)).toEqual({ intent: 'relative-black', ...FORM });
    expect(hrefs()).toEqual([
      '/api/sheets/HRN-0007-1/file?format=pdf',
      '/api/sheets/HRN-0007-1/file?format=tiff',
      '/api/sheets/HRN-0007-1/file?format=png',
    ]);
    expect(close).not.toHaveBeenCalled();
  });
});

describe('a job of inks', () => {
  it('is meant by a profile that is known or given, and its pictures have no PNG', async () => {
    const known = [{ id: 3, name: 'Offset, coated' }];
    const { sent } = fakeServer({
      'POST /api/conditions/4/job-checks': PRINTED,
      'GET /api/source-profiles': () => [...known],
      'POST /api/source-profiles': () => {
        known.push({ id: 8, name: 'Newspaper' });
        return known.at(-1);
      },
    });
    const { user } = show(<JobCheckDialog conditionId={4} simulated={false} onClose={() => {}} />);
    await user.click(screen.getByRole('combobox', { name: 'Your jobs are' }));
    await screen.findByRole('option', { name: 'CMYK meant by Offset, coated' });
    await user.keyboard('{Escape}');
    const file = new File(['x'], 'news.icc');
    await user.upload(screen.getByLabelText('Take a CMYK profile', { selector: 'input' }), file);
    await waitFor(() =>
      expect(screen.getByRole('combobox', { name: 'Your jobs are' }).textContent).toBe(
        'CMYK meant by Newspaper',
      ),
    );
    expect(sent.some(({ path }) => path === '/api/source-profiles?name=news.icc')).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Intent of your jobs' }));
    await user.click(screen.getByRole('option', { name: /^absolute/ }));
    await user.click(screen.getByRole('button', { name: 'Make the picture' }));
    expect(await screen.findByRole('heading', { name: 'Print HRN-0007' })).toBeTruthy();
    expect(jobOf(sent)).toEqual({ intent: 'absolute', sourceId: 8, ...FORM });
    expect(hrefs().map((href) => href?.split('format=')[1])).toEqual(['pdf', 'tiff']);
  });

  it('that cannot be taken says why in the dialog', async () => {
    fakeServer({
      'GET /api/source-profiles': [],
      'POST /api/source-profiles': new Refused(400, { title: 'No profile.', detail: 'Give another.' }),
    });
    const { user } = show(<JobCheckDialog conditionId={4} simulated={false} onClose={() => {}} />);
    const file = new File(['x'], 'x.icc');
    await user.upload(screen.getByLabelText('Take a CMYK profile', { selector: 'input' }), file);
    expect((await screen.findByRole('alert')).textContent).toBe('No profile. Give another.');
  });
});

describe('what a job check found', () => {
  const finding = (change: Partial<ChainFinding>): ChainFinding => ({
    cause: 'right',
    says: ['all went as it should'],
    fromRight: 0.8,
    fromBest: 0.8,
    white: 0.2,
    tried: [
      { cause: 'right', says: 'all went as it should', mean: 0.8 },
      { cause: 'twice', says: 'the profile was applied twice', mean: 6.4 },
    ],
    ...change,
  });
  const tell = (change: Partial<ChainFinding>, waiting: readonly string[] = []): void => {
    const view = { readingId: 9, code: 'HRN-0007', finishedMs: 0, intent: 'perceptual', source: 'sRGB' };
    show(
      <JobChecks
        check={{ ...view, finding: finding(change) }}
        waiting={waiting.map((code) => ({ code, job: code.startsWith('OSP') ? 'CMYK' : 'RGB' }))}
        nowMs={0}
      />,
    );
  };

  it('is said in one sentence, with what was tried', () => {
    tell({}, ['HRN-0009-1']);
    expect(
      screen.getByText('The job went as it should: the sheet is 0.8 ΔE00 from the profile on the mean.'),
    ).toBeTruthy();
    expect(screen.getByRole('row', { name: 'the profile was applied twice 6.4' })).toBeTruthy();
    expect(hrefs()).toEqual([
      '/readings/9',
      '/read/HRN-0009-1',
      '/api/sheets/HRN-0009-1/file?format=pdf',
      '/api/sheets/HRN-0009-1/file?format=tiff',
      '/api/sheets/HRN-0009-1/file?format=png',
    ]);
  });

  it.each([
    [
      { cause: 'twice', says: ['the profile was applied twice'], fromRight: 6.2, fromBest: 0.9 } as const,
      'The sheet looks as if the profile was applied twice: 0.9 ΔE00 on the mean, where the right way would leave 6.2 ΔE00.',
      /Let one program convert/,
    ],
    [
      { cause: 'unknown', says: [], fromRight: 9 } as const,
      'The job did not go as it should (9.0 ΔE00 from the profile on the mean), and nothing that is known explains it.',
      /Look at the settings/,
    ],
  ])('names %o and what to do', (change, sentence, remedy) => {
    tell(change);
    expect(screen.getByText(sentence)).toBeTruthy();
    expect(screen.getByText(remedy)).toBeTruthy();
  });

  it('does not call a sheet good that is far from the profile for no known reason', () => {
    tell({ fromRight: 2.1 });
    expect(screen.getByText(/the device may have moved\. Check it by a control wedge\./)).toBeTruthy();
  });

  it('is not there where no job was checked', () => {
    const { container } = show(<JobChecks check={undefined} waiting={[]} nowMs={0} />);
    expect(container.querySelector('.panel')).toBeNull();
  });
});
