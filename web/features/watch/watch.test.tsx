import { CMYK, RGB } from '@melto/core/device/process';
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { WATCH_PATCHES, WATCH_VALUES } from '@melto/core/watch/watchFigures';
import { createRandom } from '@melto/core/numerics/random';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import type { WatchView } from '@melto/services/watch/watchView';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { SeriesList } from './SeriesList';
import { StartWatchDialog } from './StartWatchDialog';
import { WatchChecks } from './WatchChecks';
import { WatchSurface } from './WatchSurface';
import type { WatchSurfaceProps } from './WatchSurface';

const DAY_MS = 86_400_000;
const NOW = Date.UTC(2026, 2, 14, 9);
const MAGENTA = WATCH_PATCHES.findIndex(({ name }) => name === 'M 100');

/** XYZ that scatter by a tenth; from `moved` on the magenta solid is darker. */
function figures(count: number, moved = Infinity): Float64Array[] {
  const random = createRandom(3);
  return Array.from({ length: count }, (_, check) =>
    Float64Array.from({ length: WATCH_VALUES }, (_, i) => {
      const patch = Math.floor(i / 9);
      const base = 20 + 4 * patch + (patch === 0 ? 60 : 0);
      const shift = check >= moved && patch === MAGENTA ? -4 : 0;
      return base + shift + 0.02 * random.normal();
    }),
  );
}

const checksOf = (values: readonly Float64Array[]): WatchView['checks'] =>
  values.map((own, i) => ({
    id: i + 1,
    readingId: 100 + i,
    runId: null,
    madeMs: NOW - (values.length - i) * 7 * DAY_MS,
    meanDeltaE: 0.2 + i / 100,
    largestDeltaE: 0.6,
    verdict: 'conforms',
    moved: false,
    cause: null,
    figures: [...own],
  }));

function props(view: Partial<WatchView> = {}, change: Partial<WatchSurfaceProps> = {}): WatchSurfaceProps {
  const values = figures(12);
  return {
    condition: { id: 4, process: CMYK, device: 'Heron' } as ConditionRow,
    points: [],
    conversions: [],
    versions: [],
    shown: undefined,
    nowMs: NOW,
    profileResultId: undefined,
    view: {
      nowMs: NOW,
      watch: {
        ...{ id: 7, version: 2, madeMs: NOW - 90 * DAY_MS, zeroReadings: 3, byRuns: false, judgedBy: null },
        ...{ everyDays: 7, expiresDays: 14, meanLimit: 1.5, largestLimit: 3 },
        zero: [...values[0]],
      },
      checks: checksOf(values),
      chartsFrom: null,
      dueMs: NOW + 2 * DAY_MS,
      expiresMs: NOW + 9 * DAY_MS,
      stale: null,
      candidates: [1, 2, 3, 4].map((id) => ({ id, code: `HRN-000${id}`, finishedMs: NOW })),
      runs: [],
      ...view,
    },
    hasProfile: false,
    changes: [],
    aims: [],
    tolerances: [],
    waiting: [],
    ...change,
  };
}
const button = (name: string): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name });

describe('a watch', () => {
  const sentence = (given: WatchSurfaceProps): string => {
    const { unmount, container } = show(<WatchSurface {...given} />);
    const words = container.querySelector('.surface-head p')?.textContent ?? '';
    unmount();
    return words;
  };
  const last = (change: Partial<WatchView['checks'][number]>): Partial<WatchView> => {
    const checks = checksOf(figures(12));
    return { checks: [...checks.slice(0, -1), { ...checks[11], ...change }] };
  };

  it('says in one sentence how it stands, the worst first', () => {
    expect(sentence(props())).toBe('steady: 0.31 ΔE00 from the zero reading on the mean; next check in 2 d');
    expect(sentence(props({ dueMs: NOW - 3 * DAY_MS }))).toMatch(/^a check is due since 3 d; 0\.31/);
    expect(sentence(props({ dueMs: NOW - 9 * DAY_MS, expiresMs: NOW - DAY_MS }))).toMatch(
      /^the last check has expired/,
    );
    expect(sentence(props(last({ moved: true, cause: 'Magenta has moved.' })))).toMatch(
      /^something has moved/,
    );
    expect(
      sentence(props({ ...last({ verdict: 'does-not-conform', largestDeltaE: 4.2 }), dueMs: NOW - DAY_MS })),
    ).toBe('over its limit: 0.31 ΔE00 from the zero reading on the mean, largest 4.20');
  });

  it('tells what is missing before it can start', () => {
    const none = { watch: null, checks: [], dueMs: null, expiresMs: null } as const;
    expect(sentence(props({ ...none, candidates: [] }))).toContain('Print and read the watch wedge 3 times;');
    const one = [{ id: 1, code: 'HRN-0001', finishedMs: NOW }];
    expect(sentence(props({ ...none, candidates: one }))).toContain('2 times more');
    expect(sentence(props({ ...none, candidates: one }, { waiting: ['HRN-0002-1'] }))).toContain(
      'waits to be read',
    );
    expect(sentence(props(none))).toBe('4 readings of the watch wedge are there: start the watch from them.');
    const rgb = { condition: { id: 4, process: RGB } as ConditionRow };
    expect(sentence(props(none, rgb))).toBe('A watch needs a profile to print its wedge through.');
  });

  it('prints at once what its zero reading lacks, and one wedge once it runs', async () => {
    const { sent } = fakeServer({
      'POST /api/conditions/4/wedges': { sheets: ['HRN-0009-1'], restUntilMs: 0 },
    });
    const none = { watch: null, checks: [], dueMs: null, expiresMs: null } as const;
    const one = [{ id: 1, code: 'HRN-0001', finishedMs: NOW }];
    const print = async (given: WatchSurfaceProps): Promise<unknown> => {
      const { user, unmount } = show(<WatchSurface {...given} />);
      await user.click(button('Print the watch wedge'));
      await user.click(button('Print'));
      await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
      unmount();
      return (sent.at(-1)?.body as { copies?: number }).copies;
    };
    const simulated = { conversions: ['as a photo'] };
    expect(await print(props({ ...none, candidates: [] }, simulated))).toBe(3);
    const waits = { ...simulated, waiting: ['HRN-0002-1'] };
    expect(await print(props({ ...none, candidates: one }, waits))).toBeUndefined();
    expect(await print(props({}, simulated))).toBeUndefined();
  });

  it('cannot print its wedge on a device that takes RGB and has no profile', () => {
    show(<WatchSurface {...props({}, { condition: { id: 4, process: RGB } as ConditionRow })} />);
    expect(screen.queryByRole('button', { name: 'Print the watch wedge' })).toBeNull();
  });

  it('shows the cause of the latest check, and why it is stale', () => {
    show(
      <WatchSurface
        {...props({
          ...last({ moved: true, cause: 'Magenta has moved.' }),
          stale: {
            words: 'Its curves are not in force any more.',
            act: undefined,
          } as unknown as WatchView['stale'],
        })}
      />,
    );
    expect(screen.getAllByText(/Magenta has moved\./).length).toBeGreaterThan(0);
    expect(screen.getByText(/Its curves are not in force any more\./)).toBeTruthy();
  });

  it('shows the series first that is farthest over its limits', () => {
    const values = figures(14, 12);
    show(<WatchSurface {...props({ checks: checksOf(values) })} />);
    expect(screen.getByRole('heading', { name: /^M solid, / })).toBeTruthy();
    const over = screen.getAllByRole('button', { name: /over a control limit/ });
    expect(over.every((each) => each.getAttribute('aria-label')?.startsWith('M'))).toBe(true);
  });
});

describe('the list of charts', () => {
  it('shows how a series has shifted, picks one, and marks none of a steady watch', async () => {
    const pick = vi.fn();
    const { user } = show(<SeriesList charts={watchCharts(figures(14))} picked={0} onPick={pick} />);
    expect(screen.queryByRole('button', { name: /over a control limit/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: /^greys, b\*/ }));
    const at = watchCharts(figures(14)).series.findIndex(
      ({ series }) => series.group === 'greys' && series.quantity === 'b*',
    );
    expect(pick).toHaveBeenCalledWith(at);
  });

  it('says how many checks are missing until there are limits', () => {
    show(<SeriesList charts={watchCharts(figures(4))} picked={0} onPick={() => {}} />);
    expect(screen.getByText('limits after 6 more checks')).toBeTruthy();
  });
});

describe('the checks of a watch', () => {
  it('are listed from the latest, sixty at most, each with its reading', () => {
    show(<WatchChecks checks={checksOf(figures(70))} nowMs={NOW} />);
    const links = screen.getAllByRole('link').map((link) => link.getAttribute('href'));
    expect(links).toHaveLength(60);
    expect(links[0]).toBe('/readings/169');
    expect(screen.getByText('70, the latest 60 below')).toBeTruthy();
  });

  it('lead to the run where a run is the check', () => {
    const [one] = checksOf(figures(1));
    show(<WatchChecks checks={[{ ...one, readingId: null, runId: 31 }]} nowMs={NOW} />);
    expect(screen.getByRole('link').getAttribute('href')).toBe('/runs/31/analysis');
  });

  it('tell the cause only of those that moved', () => {
    const [one, two] = checksOf(figures(2));
    show(
      <WatchChecks
        checks={[
          { ...one, moved: true, cause: 'Black has moved.' },
          { ...two, moved: false, cause: 'not shown' },
        ]}
        nowMs={NOW}
      />,
    );
    expect(screen.getByText('Black has moved.')).toBeTruthy();
    expect(screen.queryByText('not shown')).toBeNull();
  });
});

describe('starting a watch', () => {
  it('wants three readings, whole days in order and limits, with a comma too', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/watch': { id: 1 } });
    const close = vi.fn();
    const { user } = show(<StartWatchDialog {...props({ watch: null })} onClose={close} />);
    const boxes = within(screen.getByRole('group', { name: /Zero reading: 3 readings/ })).getAllByRole(
      'checkbox',
    );
    await user.click(boxes[0]);
    expect(await screen.findByText('choose three or more')).toBeTruthy();
    expect(button('Start').disabled).toBe(true);
    await user.click(boxes[3]);
    const type = async (label: string, text: string): Promise<void> => {
      await user.clear(screen.getByLabelText(label));
      await user.type(screen.getByLabelText(label), text);
    };
    await type('Expires after, days', '3');
    expect(await screen.findByText('not before the next is due')).toBeTruthy();
    expect(button('Start').disabled).toBe(true);
    await type('Expires after, days', '21');
    await waitFor(() => expect(button('Start').disabled).toBe(false));
    await type('Mean ΔE00 up to', '0');
    await waitFor(() => expect(button('Start').disabled).toBe(true));
    await type('Mean ΔE00 up to', '1,2');
    await waitFor(() => expect(button('Start').disabled).toBe(false));
    await user.click(button('Start'));
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(sent[0].body).toEqual({
      ...{ everyDays: 7, expiresDays: 21, meanLimit: 1.2, largestLimit: 3 },
      readingIds: [2, 3, 4],
    });
    expect(navigation.refreshed).toBe(1);
  });

  it('proposes no reading for its zero that has moved', () => {
    const [one, two] = checksOf(figures(2));
    const checks = [
      { ...one, readingId: 1, moved: true },
      { ...two, readingId: 3, moved: false },
    ];
    show(<StartWatchDialog {...props({ checks })} onClose={() => {}} />);
    const boxes = screen.getAllByRole<HTMLInputElement>('checkbox');
    expect(boxes.map(({ checked }) => checked)).toEqual([false, true, true, true]);
  });

  it('is started by runs where they are chosen instead', async () => {
    const { sent } = fakeServer({ 'POST /api/conditions/4/run-watch': { id: 1 } });
    const runs = [31, 32, 33].map((id) => ({ id, jobNumber: `26-${id}`, title: 'Job', madeMs: NOW }));
    const { user } = show(<StartWatchDialog {...props({ watch: null, runs })} onClose={() => {}} />);
    await user.click(screen.getByRole('combobox', { name: 'Zero reading from' }));
    await user.click(await screen.findByRole('option', { name: 'runs on the press' }));
    await user.click(button('Start'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0].body).toMatchObject({ runIds: [31, 32, 33] });
    expect(sent[0].body).not.toHaveProperty('readingIds');
  });

  it('takes over what the watch before had, and stays open when it is refused', async () => {
    fakeServer({
      'POST /api/conditions/4/watch': new Refused(400, { title: 'Not alike.', detail: 'Choose others.' }),
    });
    const close = vi.fn();
    const { user } = show(<StartWatchDialog {...props()} onClose={close} />);
    expect(screen.getByRole('dialog', { name: 'Start the watch anew' })).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Expires after, days').value).toBe('14');
    await user.click(button('Start'));
    expect((await screen.findByRole('alert')).textContent).toBe('Not alike. Choose others.');
    expect(close).not.toHaveBeenCalled();
  });
});
