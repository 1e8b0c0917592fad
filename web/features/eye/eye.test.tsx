import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { EyeHypothesis, PointedCause } from '@melto/core/eye/pointOut';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { EyeSurface } from './EyeSurface';
import { CLEAR, pointedSentences } from '@melto/core/eye/eyeSentences';

const point = (cause: PointedCause['cause'], share: number): PointedCause => ({ cause, share, words: 'so' });
/** Less ink makes all lighter; as it should be nothing moves. */
const HYPOTHESES = Array.from({ length: 2 }, (_, i): EyeHypothesis => ({
  cause: i === 0 ? 'ink' : 'reach',
  words: 'so',
  shifts: Array.from({ length: 7 }, () => Float64Array.of(i === 0 ? 6 : 0, 0, 0)),
}));
vi.mock('@/ui/useRemoteWorker', () => ({
  useRemoteWorker: () => ({ hypotheses: () => Promise.resolve(HYPOTHESES) }),
}));

describe('what an eye’s notes point to, in words', () => {
  it('is one cause where it is clear, and said to be unsure just below that', () => {
    const [first, next] = pointedSentences([point('ink', CLEAR), point('reach', 1 - CLEAR)], false);
    expect(first).toBe('Ink limits or speed: so.');
    expect(next).toContain('read a short check');
    const unsure = pointedSentences([point('ink', CLEAR - 0.01), point('light', 0.26)], false);
    expect(unsure[0]).toBe(
      'No single cause stands out. Most speaks for this: ink limits or speed (so); it may also be the light.',
    );
    expect(unsure).toHaveLength(3);
  });

  it('is nothing where all colours look the same', () => {
    expect(pointedSentences([point('reach', 0.6)], true)[0]).toContain('printed as it should be');
    expect(pointedSentences([point('reach', 0.9)], false)[0]).toContain('Ink and paper');
    expect(pointedSentences([], false)).toEqual(['Nothing was noted yet.']);
  });
});

describe('an eye’s check', () => {
  const condition = { id: 5, deviceDriver: '' } as ConditionRow;
  const colours = Array.from({ length: 7 }, (_, i) => ({
    name: i === 1 ? 'Grey' : `Colour ${i + 1}`,
    lab: [50, i === 1 ? 0 : 30, 0],
  }));
  const ground = { resultId: 9, listName: 'x', colours, device: [], beyond: [{ colour: 2, deltaE: 4.2 }] };
  const server = (more = {}) =>
    fakeServer({
      'GET /api/conditions/5/eye-ground': { ...ground, chart: null, dark: null },
      'GET /api/conditions/5/eyes-checks': [],
      'GET /api/results/9/file': {},
      ...more,
    });

  it('asks colour by colour, says what notes point to from six on, and keeps them', async () => {
    const { sent } = server({ 'POST /api/conditions/5/eyes-checks': { id: 1 } });
    const { user } = show(<EyeSurface condition={condition} simulated={false} />);
    expect((await screen.findByRole('status')).textContent).toContain('1 Colour 1');
    expect(screen.getByText(/Not reached: Colour 3 by 4.2/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'redder' }));
    await user.click(screen.getByRole('button', { name: 'greener' }));
    // What excludes another takes its place.
    expect(screen.getByRole('button', { name: 'redder' }).getAttribute('aria-pressed')).toBe('false');
    await user.click(screen.getByRole('button', { name: 'Note it: greener' }));
    // A grey has no strength to lose.
    expect(screen.getByRole('status').textContent).toContain('2 Grey');
    expect(screen.queryByRole('button', { name: 'duller' })).toBeNull();
    const lighter = async (): Promise<void> => {
      await user.click(screen.getByRole('button', { name: 'lighter' }));
      await user.click(screen.getByRole('button', { name: 'Note it: lighter' }));
    };
    for (let i = 0; i < 4; i++) await lighter();
    expect(screen.queryByRole('button', { name: 'Keep this look' })).toBeNull();
    await lighter();
    expect(await screen.findByText('Ink limits or speed: so.')).toBeTruthy();
    // One may go back to any of them.
    await user.click(screen.getByRole('button', { name: '1 Colour 1' }));
    expect(screen.getByRole('button', { name: 'greener' }).getAttribute('aria-pressed')).toBe('true');
    await user.click(await screen.findByRole('button', { name: 'Keep this look' }));
    await expect
      .poll(() => sent.find(({ method }) => method === 'POST')?.body)
      .toMatchObject({
        resultId: 9,
        light: 'D50',
        notes: [
          { colour: 0, words: ['greener'] },
          ...[1, 2, 3, 4, 5].map((colour) => ({ colour, words: ['lighter'] })),
        ],
        points: [
          { cause: 'ink', words: 'so' },
          { cause: 'reach', words: 'so' },
        ],
      });
    expect(await screen.findByText(/0 of 7 noted/)).toBeTruthy();
  });

  it('lists what was kept', async () => {
    server({
      'GET /api/conditions/5/eyes-checks': [
        {
          ...{ id: 3, madeMs: 0, author: 'Ines', listName: 'Brand v2', light: 'F11', version: 4 },
          ...{
            names: [],
            notes: [
              { colour: 0, words: [] },
              { colour: 1, words: ['duller'] },
            ],
          },
          points: [point('light', 0.99)],
        },
      ],
    });
    show(<EyeSurface condition={condition} simulated={false} />);
    const row = (await screen.findByText('Brand v2')).closest('tr');
    expect(within(row as HTMLElement).getByText('1 of 2')).toBeTruthy();
    expect(within(row as HTMLElement).getByText('The light: so.')).toBeTruthy();
  });

  it('says why there is no page', async () => {
    server({
      'GET /api/conditions/5/eye-ground': new Refused(409, { title: 'No profile.', detail: 'Build one.' }),
    });
    show(<EyeSurface condition={condition} simulated={false} />);
    expect((await screen.findByRole('alert')).textContent).toBe('No profile. Build one.');
    expect(screen.queryByRole('status')).toBeNull();
  });
});
