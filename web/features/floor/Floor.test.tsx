import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { FloorRow } from '@melto/services/overview/floorRow';
import type { FloorCounts } from '@melto/services/overview/floor';
import { fakeServer } from '@/testing/fakeServer';
import { FLOOR_NOW, floorRow } from '@/testing/floorState';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { LimitBar } from '@/ui/LimitBar';
import { Floor } from './Floor';

const DAY_MS = 86_400_000;
/** What the sentences count, as the server does. */
const countsOf = (rows: readonly FloorRow[], sheets: Partial<FloorCounts>): FloorCounts => {
  const marked = (state: string): number =>
    rows.filter(({ links }) => links.some((link) => link.state === state)).length;
  return {
    ...{ conditions: rows.length, fails: marked('does-not-conform'), due: marked('due') },
    ...{ ready: 0, resting: 0, restUntilMs: FLOOR_NOW + 3_600_000 },
    ...sheets,
  };
};

function open(
  rows: readonly FloorRow[],
  sheets: Partial<FloorCounts> = {},
  query = '',
  next: number | null = null,
  sampleOffered = true,
) {
  navigation.query = query;
  const counts = countsOf(rows, sheets);
  const page = (shown: readonly FloorRow[], after: number | null = null) => ({
    ...{ nowMs: FLOOR_NOW, counts, rows: shown, next: after },
  });
  const server = fakeServer({
    'GET /api/floor': page(rows, next),
    'GET /api/floor?show=due': page(rows.filter(({ links }) => links.some(({ state }) => state === 'due'))),
    'GET /api/floor?order=device': page([...rows].sort((a, b) => a.device.localeCompare(b.device))),
    'GET /api/floor?order=stock&find=x': page([]),
    'GET /api/floor?after=1': page([floorRow(2)]),
    'POST /api/sample-house': { jobId: 1 },
  });
  const floor = () => <Floor initial={page(rows, next)} sampleOffered={sampleOffered} />;
  const shown = show(floor());
  return {
    ...{ ...shown, ...server },
    /** The same page at another address. */
    again: (at: string): void => {
      navigation.query = at;
      shown.rerender(floor());
    },
  };
}
const stocks = (): string[] =>
  screen
    .getAllByRole('link')
    .map((link) => /Stock \d+/.exec(link.textContent ?? '')?.[0] ?? '')
    .filter((name) => name !== '');

describe('the floor', () => {
  it('without a condition offers the first one and the sample house', async () => {
    const { user, sent } = open([]);
    expect(screen.getByText(/a condition is one device with one stock/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'New condition' }).getAttribute('href')).toBe('/conditions/new');
    await user.click(screen.getByRole('button', { name: 'Load the sample house' }));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/sample-house')).toBe(true));
  });

  it('offers no sample house where the simulated devices are left out', () => {
    open([], {}, '', null, false);
    expect(screen.getByRole('link', { name: 'New condition' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Load the sample house' })).toBeNull();
  });

  it('says so when nothing needs anybody', () => {
    open([floorRow(1)]);
    expect(screen.getByText('Nothing needs you now.')).toBeTruthy();
  });

  it('counts in sentences what fails, is due, is ready and rests', async () => {
    open(
      [
        floorRow(1, { attention: 3 }, { conformity: 'does-not-conform' }),
        floorRow(2, { attention: 2 }, { watch: 'due' }),
        floorRow(3, { attention: 2 }, { watch: 'due' }),
        floorRow(4),
      ],
      { ready: 2, resting: 1 },
    );
    expect(screen.getByRole('button', { name: '1 does not conform' })).toBeTruthy();
    expect(screen.getByRole('button', { name: '2 checks are due' })).toBeTruthy();
    expect(await screen.findByRole('button', { name: '2 sheets are ready to read' })).toBeTruthy();
    expect(screen.getByRole('button', { name: '1 rests until 10:00' })).toBeTruthy();
  });

  it('filters by a sentence, which is in the address, and takes the filter away again', async () => {
    const rows = [
      floorRow(1, { attention: 3 }, { conformity: 'does-not-conform' }),
      floorRow(2, { attention: 2 }, { watch: 'due' }),
      floorRow(3),
    ];
    const { user, unmount } = open(rows);
    expect(stocks()).toEqual(['Stock 1', 'Stock 2', 'Stock 3']);
    await user.click(screen.getByRole('button', { name: '1 check is due' }));
    expect(navigation.went).toEqual(['/?show=due']);
    unmount();
    const filtered = open(rows, {}, 'show=due');
    await waitFor(() => expect(stocks()).toEqual(['Stock 2']));
    await filtered.user.click(screen.getByRole('button', { name: '1 check is due', pressed: true }));
    expect(navigation.went.at(-1)).toBe('/?');
  });

  it('keeps to everything where the address asks for a filter that there is not', () => {
    open([floorRow(1), floorRow(2)], {}, 'show=nonsense');
    expect(stocks()).toHaveLength(2);
  });

  it('sets those with nothing to do apart, or groups by device', async () => {
    const rows = [
      floorRow(1, { attention: 3, device: 'Osprey' }, { curves: 'does-not-conform' }),
      floorRow(2, { device: 'Heron' }),
      floorRow(3, { device: 'Osprey' }),
    ];
    const { unmount } = open(rows);
    expect(screen.getByText('Nothing to do')).toBeTruthy();
    unmount();
    open(rows, {}, 'order=device');
    await waitFor(() => expect(stocks()).toEqual(['Stock 2', 'Stock 1', 'Stock 3']));
    expect(screen.getAllByRole('cell', { name: /^(Heron|Osprey)$/ })).toHaveLength(2);
    expect(screen.queryByText('Nothing to do')).toBeNull();
  });

  it('is searched and ordered by the address; what is not found is said', async () => {
    const { user } = open([floorRow(1, { duty: 'Front end calibrated' })]);
    expect(screen.getByText(/Front end calibrated is due at Heron/)).toBeTruthy();
    await user.type(screen.getByLabelText('Find'), 'gloss ');
    await waitFor(() => expect(navigation.went.at(-1)).toBe('/?find=gloss'));
    cleanup();
    // By the way back the address changes alone, and the field with it.
    const back = open([floorRow(1)], {}, 'find=gloss');
    expect(screen.getByLabelText<HTMLInputElement>('Find').value).toBe('gloss');
    back.again('find=marsh');
    expect(screen.getByLabelText<HTMLInputElement>('Find').value).toBe('marsh');
    cleanup();
    open([], { conditions: 3 }, 'order=stock&find=x');
    expect(await screen.findByText('No condition with “x”.')).toBeTruthy();
  });

  it('shows more where there is more', async () => {
    const { user } = open([floorRow(1)], {}, '', 1);
    await user.click(screen.getByRole('button', { name: 'Show more' }));
    await waitFor(() => expect(stocks()).toEqual(['Stock 1', 'Stock 2']));
    expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull();
  });

  it('leaves the place of a link blank that a process has not', () => {
    const row = floorRow(1);
    const { container } = open([
      { ...row, links: row.links.filter(({ link }) => ['profile', 'conformity', 'watch'].includes(link)) },
    ]);
    const marks = container.querySelectorAll('tbody .marks > *');
    expect([...marks].map((mark) => mark.tagName.toLowerCase())).toEqual([
      ...['i', 'i', 'i', 'svg', 'svg', 'svg'],
    ]);
    expect(screen.getByRole('img', { name: 'profile: current' })).toBeTruthy();
  });

  it('tells when the next check is due, or how long ago it was', () => {
    const watch = (dueMs: number): FloorRow['watch'] => ({
      spark: [0.5],
      limit: 1.5,
      dueMs,
      verdict: 'conforms',
    });
    open([
      floorRow(1, { watch: watch(FLOOR_NOW + 2 * DAY_MS) }),
      floorRow(2, { watch: watch(FLOOR_NOW - 2.7 * DAY_MS) }, { watch: 'due' }),
      floorRow(3, { watch: null, check: null }),
    ]);
    const rows = screen.getAllByRole('row');
    expect(within(rows[1]).getByText(/^in 2 d/)).toBeTruthy();
    expect(within(rows[2]).getByText('overdue 2 d')).toBeTruthy();
    expect(within(rows[3]).getByText('no watch')).toBeTruthy();
    expect(within(rows[3]).getByText('not yet checked')).toBeTruthy();
    expect(within(rows[1]).getByRole('img', { name: 'drift 0.50 of 1.5' })).toBeTruthy();
  });

  it('leads by its sentence to the act', () => {
    open([floorRow(1, { whatNow: { words: 'Read HRN-0004-1', href: '/read/HRN-0004-1' }, attention: 1 })]);
    expect(screen.getByRole('link', { name: 'Read HRN-0004-1' }).getAttribute('href')).toBe(
      '/read/HRN-0004-1',
    );
  });
});

describe('a value against its limit', () => {
  it.each([
    [1, 2, '40%'],
    [2, 2, '80%'],
    [5, 2, '100%'],
  ])('%d of %d fills %s, the limit stands at 80 %%', (value, limit, width) => {
    const { container } = show(<LimitBar value={value} limit={limit} status="conforms" />);
    expect(container.querySelector<HTMLElement>('.bar i')?.style.width).toBe(width);
    expect(container.querySelector<HTMLElement>('.bar b')?.style.left).toBe('80%');
  });
});
