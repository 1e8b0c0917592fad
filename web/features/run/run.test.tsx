import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RunView } from '@melto/services/press/runView';
import type { AnalysisView } from '@melto/services/press/analysis';
import { shareOf } from '@melto/core/press/capability';
import { navigation } from '@/testing/navigation';
import { AnalysisSurface } from './AnalysisSurface';
import { moveReason, moveWords, nextImpression } from './moveWords';
import { patchWords } from './SheetPicture';
import { RunSurface } from './RunSurface';
import { shownChanges } from './UnitRow';
import { RunSettingsDialog } from './RunSettingsDialog';
import { RunWatchWords } from './RunWatchWords';
import { settingsOf, typedSettings } from './RunSettingsFields';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';

const line = (change: Partial<RunView['lines'][number]> = {}): RunView['lines'][number] => ({
  ...{
    unit: 0,
    ink: 'C',
    word: 'leave',
    changes: [0, 0, 0],
    outside: [],
    unreachable: [],
    from: 0,
    sheets: 1,
  },
  ...{ zones: [], worst: 2, tolerance: 3.5, lab: [55, -37, -50] },
  ...change,
});
const patch = (change: Partial<RunView['patches'][number]> = {}): RunView['patches'][number] => ({
  ...{
    zone: 0,
    kind: 'solid',
    words: 'C solid',
    lab: [55, -37, -50],
    density: 1.4,
    quantity: 'ΔE',
    value: 4.1,
  },
  ...{ limit: 3.5, outside: true },
  ...change,
});
const RUN: RunView = {
  ...{ id: 7, conditionId: 3, condition: 'Osprey / Marsh Silk 130 / 175 lpi', jobNumber: '26-0418' },
  ...{ title: 'Seed catalogue', customer: 'Saltmarsh Seeds', side: 'front', quantity: 4000, repeatMm: null },
  ...{ aimSetId: 1, aims: 'aims', phase: 'make-ready', productionFrom: null, okImpression: null, edition: 4 },
  ...{
    fromRunId: null,
    author: 'Ines Marlow',
    madeMs: 0,
    sheets: 1,
    lastImpression: 200,
    judged: 2,
    outside: 1,
  },
  settings: USUAL_SETTINGS,
  aimsInLights: false,
  units: [
    { ink: 'C', filter: 'red' },
    { ink: 'M', filter: 'green' },
  ],
  bar: { zones: 3, zoneMm: 32, patchMm: 5, patches: 3, described: null },
  simulated: true,
  lines: [
    line({ word: 'move', changes: [0.12, 0, -0.03], outside: [0], worst: 6 }),
    line({ unit: 1, ink: 'M' }),
  ],
  patches: [
    patch(),
    patch({ zone: 1, outside: false, value: 1 }),
    patch({ zone: 2, lab: null, density: null, value: null, outside: false }),
  ],
  ...{
    spread: 3.2,
    beyond: ['C 50 %: tone value +6.0 % from its aim.'],
    moves: [],
    watch: null,
    contrast: [41.2, null],
  },
  strips: [
    {
      id: 1,
      impression: 200,
      phase: 'make-ready',
      openPatches: 1,
      outside: 1,
      judged: 2,
      spread: 3.2,
      readMs: 0,
      zonesOutside: [1, 0, 0],
    },
  ],
};

/** The stream of a run, in the hands of a test. */
class Stream {
  static last: Stream | undefined;
  onmessage: ((event: { data: string }) => void) | undefined;
  closed = false;
  constructor(readonly address: string) {
    Stream.last = this;
  }
  close(): void {
    this.closed = true;
  }
}
const calls: { readonly address: string; readonly body: unknown }[] = [];
let answer: unknown = {};
const before = { EventSource: globalThis.EventSource, fetch: globalThis.fetch };
beforeEach(() => {
  calls.length = 0;
  answer = {};
  globalThis.EventSource = Stream as unknown as typeof EventSource;
  globalThis.fetch = vi.fn((address: string, asked?: RequestInit) => {
    calls.push({ address, body: typeof asked?.body === 'string' ? JSON.parse(asked.body) : undefined });
    return Promise.resolve(
      new Response(JSON.stringify(answer), { headers: { 'content-type': 'application/json' } }),
    );
  }) as unknown as typeof fetch;
});
afterEach(() => {
  Object.assign(globalThis, before);
});
const show = (element: React.ReactNode) =>
  render(<QueryClientProvider client={new QueryClient()}>{element}</QueryClientProvider>);

describe('what the watch says at the press', () => {
  const words = (watch: RunView['watch']): string =>
    show(<RunWatchWords run={{ ...RUN, watch }} />).container.textContent;
  const own = { meanDeltaE: 1.24, largestDeltaE: 3, verdict: 'conforms', moved: false, cause: null };

  it('is nothing without a watch, quiet while it is steady, and why the run is no check', () => {
    expect(words(null)).toBe('');
    expect(words({ moved: false, cause: null, own, why: null })).toContain('with this run 1.24 ΔE00');
    expect(words({ moved: false, cause: null, own: null, why: 'Other aims.' })).toBe(
      'Watch: steady. Other aims.',
    );
  });

  it('is what has moved: this run before the condition', () => {
    const moved = { ...own, moved: true, cause: 'Magenta has moved.' };
    expect(words({ moved: true, cause: 'Cyan has moved.', own: moved, why: null })).toContain(
      'This run has moved from the zero reading, 1.24 ΔE00 on the mean. Magenta has moved.',
    );
    expect(words({ moved: true, cause: 'Cyan has moved.', own, why: null })).toContain(
      'The condition has moved. Cyan has moved.',
    );
    expect(
      words({ moved: false, cause: null, own: { ...own, verdict: 'does-not-conform' }, why: null }),
    ).toContain('This run has moved');
  });
});

describe('words of a move', () => {
  it('say what is to be done in how many zones', () => {
    const words = (changes: number[]) => moveWords(line({ word: 'move', changes }));
    expect(words([0.1, 0, 0])).toBe('more in 1 zone');
    expect(words([0.1, 0.1, 0])).toBe('more in 2 zones');
    expect(words([0.1, 0.1, 0.1])).toBe('more, all over');
    expect(words([-0.1, -0.1, -0.1])).toBe('less, all over');
    expect(words([-0.1, 0, 0])).toBe('less in 1 zone');
    expect(words([0.1, 0, -0.1])).toBe('more in 1, less in 1');
    expect(moveWords(line())).toBe('leave it');
    expect(moveWords(line({ word: 'wait', from: 1360 }))).toBe('wait for 1,360');
    expect(moveWords(line({ word: 'read' }))).toBe('no solid read');
  });

  it('say why', () => {
    expect(moveReason(line(), 'colour')).toBe('worst ΔE 2.0 of 3.5');
    expect(moveReason(line({ worst: 3.6 }), 'colour')).toContain(
      'outside by less than the reading is sure of',
    );
    expect(moveReason(line({ unreachable: [0, 1] }), 'colour')).toContain('no density mends 2 zones');
    expect(moveReason(line({ word: 'move', outside: [1], sheets: 2 }), 'colour')).toContain(
      '1 zone outside, by 2 sheets',
    );
    expect(moveReason(line({ worst: 0.09, tolerance: 0.07, word: 'move' }), 'density')).toContain(
      'density off by 0.09 of 0.07',
    );
  });

  it('propose the next sheet once the keys have settled', () => {
    expect(nextImpression(null, 150)).toBe(200);
    expect(nextImpression(200, 150)).toBe(360);
    expect(nextImpression(200, 0)).toBe(210);
  });

  it('tell a patch', () => {
    expect(patchWords(patch())).toBe('Zone 1, C solid: ΔE 4.1 of 3.5');
    expect(patchWords(patch({ lab: null, density: null, value: null }))).toBe('Zone 1, C solid: not read');
    expect(patchWords(patch({ quantity: null, value: null, limit: null, words: 'K lines along' }))).toBe(
      'Zone 1, K lines along',
    );
  });
});

describe('figures of a move', () => {
  const of = (zones: number) =>
    shownChanges(Array.from({ length: zones }, (_, zone) => (zone === 1 ? 0 : 0.01 * (zone - 3)))).map(
      ({ zone, words }) => `${zone} ${words}`,
    );
  it('stand in each zone that moves, shorter where zones are many, and the greatest two in very many', () => {
    expect(of(5)).toEqual(['0 −0.03', '2 −0.01', '4 +0.01']);
    expect(of(14)).toContain('4 +0.01');
    expect(of(15)).toContain('4 +.01');
    expect(of(30)).toHaveLength(28);
    expect(of(31)).toEqual(['30 +.27', '0 −.03']);
    expect(shownChanges(new Array<number>(31).fill(0))).toEqual([]);
  });
});

describe('settings of a run', () => {
  it('leave the light alone while the aims are colours, and say what another light does', async () => {
    let closed = false;
    const open = (aimsInLights: boolean) =>
      show(<RunSettingsDialog run={{ ...RUN, aimsInLights }} onClose={() => (closed = true)} />);
    const { unmount } = open(false);
    expect(screen.getByLabelText('Light').getAttribute('aria-disabled')).toBe('true');
    expect(screen.getByText(/Lock them to an OK sheet/)).toBeTruthy();
    unmount();
    open(true);
    fireEvent.mouseDown(screen.getByLabelText('Light'));
    fireEvent.click(await screen.findByRole('option', { name: 'A' }));
    expect(screen.getByText(/are others for A\/2° than for D50\/2°/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Change them' }));
    await waitFor(() => expect(closed).toBe(true));
    expect(calls[0].body).toMatchObject({ light: 'A', observer: '2deg' });
  });

  it('are what was typed, and none where something is no number', () => {
    const typed = typedSettings(USUAL_SETTINGS);
    expect(settingsOf(typed, ['C'])).toEqual(USUAL_SETTINGS);
    expect(
      settingsOf({ ...typed, tolerances: { ...typed.tolerances, tone: '3,5' } }, ['C'])?.tolerances.tone,
    ).toBe(3.5);
    for (const tone of ['', '0', '-1', 'four'])
      expect(settingsOf({ ...typed, tolerances: { ...typed.tolerances, tone } }, ['C'])).toBeUndefined();
    for (const settle of ['1.5', '-1', 'x']) expect(settingsOf({ ...typed, settle }, ['C'])).toBeUndefined();
  });

  it('need a density for each ink where density is the guide', () => {
    const typed = { ...typedSettings(USUAL_SETTINGS), guide: 'density' as const, densities: { C: '1.4' } };
    expect(settingsOf(typed, ['C'])?.densities).toEqual({ C: 1.4 });
    expect(settingsOf(typed, ['C', 'M'])).toBeUndefined();
  });
});

describe('a run', () => {
  it('shows the move in words and by zone, and only what is outside with a shape', () => {
    show(<RunSurface initial={RUN} />);
    const [cyan, magenta] = within(screen.getByRole('list', { name: 'Next move of each unit' })).getAllByRole(
      'listitem',
    );
    expect(cyan.textContent).toContain('more in 1, less in 1');
    expect(cyan.textContent).toContain('+0.12');
    expect(cyan.textContent).toContain('−0.03');
    expect(magenta.textContent).toContain('leave it');
    expect(screen.getByRole('img', { name: /1 patch outside. Zone 1, C solid: ΔE 4.1 of 3.5/ })).toBeTruthy();
    expect(screen.getByText('1 of 2 patches within')).toBeTruthy();
    expect(screen.getByText(/tone value \+6.0 %/)).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Impression 200: 1 of 2 patches outside, 1 open' })).toBeTruthy();
  });

  it('notes that the keys were moved, once, as it was told', async () => {
    show(<RunSurface initial={RUN} />);
    const button = screen.getByRole('button', { name: 'Keys are moved' });
    fireEvent.click(button);
    fireEvent.click(button);
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(calls[0]).toEqual({
      address: '/api/runs/7/moves',
      body: { impression: 200, moves: [{ unit: 0, changes: [0.12, 0, -0.03] }] },
    });
  });

  it('has no keys to move where all is left alone, or the run is finished', () => {
    const { unmount } = show(<RunSurface initial={{ ...RUN, lines: [line()] }} />);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keys are moved' }).disabled).toBe(true);
    unmount();
    show(<RunSurface initial={{ ...RUN, phase: 'finished' }} />);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keys are moved' }).disabled).toBe(true);
    expect(screen.queryByRole('button', { name: 'Take a sheet' })).toBeNull();
  });

  it('asks for what is new when the stream tells of it, and leaves the stream with the page', async () => {
    const { unmount } = show(<RunSurface initial={RUN} />);
    expect(Stream.last?.address).toBe('/api/runs/7/stream');
    Stream.last?.onmessage?.({ data: '4' });
    expect(calls).toHaveLength(0);
    answer = { ...RUN, edition: 5, lines: [line({ word: 'wait', from: 350 })] };
    Stream.last?.onmessage?.({ data: '5' });
    expect(await screen.findByText('wait for 350')).toBeTruthy();
    expect(calls.map(({ address }) => address)).toEqual(['/api/runs/7']);
    unmount();
    expect(Stream.last?.closed).toBe(true);
  });

  it('takes a sheet at the counter that is typed, and none at what is no counter', async () => {
    show(<RunSurface initial={RUN} />);
    fireEvent.click(screen.getByRole('button', { name: 'Take a sheet' }));
    const counter = screen.getByLabelText<HTMLInputElement>('Counter of the press');
    expect(counter.value).toBe('360');
    const read = screen.getByRole<HTMLButtonElement>('button', { name: 'Read it' });
    fireEvent.change(counter, { target: { value: '36o' } });
    expect(read.disabled).toBe(true);
    fireEvent.change(counter, { target: { value: '400' } });
    answer = { impression: 400, open: 0, completed: false, turned: false, surplus: 0 };
    fireEvent.click(read);
    await waitFor(() => expect(screen.queryByLabelText('Counter of the press')).toBeNull());
    expect(calls[0]).toEqual({ address: '/api/runs/7/pull', body: { impression: 400 } });
  });

  it('marks no OK sheet whose patches are open', () => {
    show(<RunSurface initial={RUN} />);
    fireEvent.click(screen.getByRole('button', { name: 'OK sheet' }));
    expect(screen.getByRole('alert').textContent).toContain('1 patch of this sheet is open');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Mark it' }).disabled).toBe(true);
  });
});

describe('an analysis', () => {
  const view: AnalysisView = {
    ...{
      sheets: 4,
      values: 40,
      sheetShare: shareOf(3, 4),
      patchShare: shareOf(39, 40),
      zones: 3,
      runs: 1,
      otherwise: 0,
      seen: { formula: 'ΔE00', light: 'D50/2°' },
      shift: null,
      against: null,
      variation: [],
    },
    overTime: [{ from: 200, to: 300, share: 0.9 }],
    run: RUN,
    rows: [
      {
        ...{
          key: 'solid C',
          words: 'C solid',
          quantity: 'ΔE',
          mean: 1,
          at95: 3,
          largest: 4,
          limit: 3.5,
          capability: undefined,
        },
        share: shareOf(11, 12),
        zones: [shareOf(4, 4), shareOf(3, 4), undefined],
      },
    ],
  };

  it('says the shares, and leads from one to its readings outside', async () => {
    answer = [{ impression: 300, words: 'C solid', zone: 1, value: 4 }];
    show(<AnalysisSurface view={view} scope="run" phase={undefined} />);
    expect(screen.getByText('75.0 %')).toBeTruthy();
    expect(
      screen.getByRole<HTMLButtonElement>('button', { name: 'C solid, zone 1: 100 % within' }).disabled,
    ).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'C solid, zone 2: 75.0 % within' }));
    expect(await screen.findByText(/zone 2, C solid: 4.00/)).toBeTruthy();
    expect(calls[0].address).toBe('/api/runs/7/outside?key=solid+C&zone=1');
    expect(screen.getByText('No OK sheet was marked in this run.')).toBeTruthy();
  });

  it('of a shift leads to those beside it', () => {
    const shift = { fromMs: 1000, toMs: 5000, words: '2026-03-14, 06:00 to 14:00' };
    const beside = () => navigation.went.at(-1);
    show(<AnalysisSurface view={{ ...view, shift }} scope="shift" phase={undefined} />);
    expect(screen.getByText('Shift of 2026-03-14, 06:00 to 14:00')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'The shift before' }));
    expect(beside()).toBe('/runs/7/analysis?scope=shift&phase=&at=999&aims=');
    fireEvent.click(screen.getByRole('button', { name: 'The shift after' }));
    expect(beside()).toBe('/runs/7/analysis?scope=shift&phase=&at=5000&aims=');
  });

  it('by other aims lists no readings of the run’s own', () => {
    const aimSets = [{ id: 4, name: 'House coated' }];
    show(
      <AnalysisSurface
        view={{ ...view, against: aimSets[0] }}
        scope="run"
        phase={undefined}
        aimSets={aimSets}
      />,
    );
    expect(screen.getByRole('combobox', { name: 'Against' }).textContent).toBe('House coated');
    fireEvent.click(screen.getByRole('button', { name: 'C solid, zone 2: 75.0 % within' }));
    expect(screen.getByText(/are listed for one run, by its own aims/)).toBeTruthy();
    expect(calls).toHaveLength(0);
  });

  it('of no sheet says so', () => {
    show(<AnalysisSurface view={{ ...view, sheetShare: undefined }} scope="run" phase="production" />);
    expect(screen.getByText('No sheet was read in this phase yet.')).toBeTruthy();
  });
});
