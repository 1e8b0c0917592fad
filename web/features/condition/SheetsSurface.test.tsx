import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';
import type { SheetOfCondition } from '@melto/services/charts/rack';
import { fakeServer, Refused } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { SheetsSurface } from './SheetsSurface';

type Sheet = SheetOfCondition;
/** A surface whose lists have one page each. */
const surface = (sheets: readonly Sheet[], readings: readonly ReadingOfCondition[]) => (
  <SheetsSurface
    conditionId={4}
    sheets={{ rows: sheets, next: null }}
    readings={{ rows: readings, next: null }}
    nowMs={0}
  />
);
const sheet = (change: Partial<Sheet> = {}): Sheet =>
  ({
    ...{ code: 'HRN-0001-1', title: 'Ramps', conditionId: 4, printId: 1, onRack: true },
    ...{ state: 'ready', printedMs: 0, restUntilMs: 0, strips: 6, stripsRead: 0, thumbnail: [] },
    ...change,
  }) as Sheet;
const reading = (change: Partial<ReadingOfCondition> = {}): ReadingOfCondition =>
  ({
    ...{ id: 9, code: 'HRN-0001', title: 'Ramps', mode: 'M1', startedMs: 0, finishedMs: 1 },
    ...{ withdrawnMs: null, faults: null },
    ...change,
  }) as ReadingOfCondition;

describe('sheets and readings', () => {
  it('say how sheets get there when there is none', () => {
    show(surface([], []));
    expect(screen.getByText(/No sheet was printed on this condition yet/)).toBeTruthy();
  });

  it('tell the state of each', () => {
    show(
      surface(
        [sheet(), sheet({ code: 'b', onRack: false, stripsRead: 6 }), sheet({ code: 'c', onRack: false })],
        [
          reading(),
          reading({ id: 10, finishedMs: null }),
          reading({ id: 11, withdrawnMs: 5, faults: '[{"kind":"wrong-side"}]' }),
        ],
      ),
    );
    const cells = (row: HTMLElement): string => row.textContent ?? '';
    const [, one, two, three] = within(screen.getAllByRole('table')[0]).getAllByRole('row');
    expect(
      [cells(one), cells(two), cells(three)].map((text) => /complete|in progress|withdrawn/.exec(text)?.[0]),
    ).toEqual(['complete', 'in progress', 'withdrawn']);
    expect(cells(three)).toContain('wrong side');
    const [, ready, read, thrown] = within(screen.getAllByRole('table')[1]).getAllByRole('row');
    expect(cells(ready)).toContain('ready');
    expect(cells(read)).toContain('6 of 6read');
    expect(cells(thrown)).toContain('thrown away');
    expect(screen.getAllByRole('button', { name: 'Throw away' })).toHaveLength(1);
  });

  it('withdraw a reading and take it back', async () => {
    const { sent } = fakeServer({
      'PUT /api/readings/9/withdrawn': {},
      'PUT /api/readings/10/withdrawn': {},
    });
    const { user } = show(surface([], [reading(), reading({ id: 10, withdrawnMs: 4 })]));
    await user.click(screen.getByRole('button', { name: 'Withdraw' }));
    await user.click(screen.getByRole('button', { name: 'Take back' }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ body }) => body)).toEqual([{ withdrawn: true }, { withdrawn: false }]);
  });

  it('throw a sheet away and offer it back', async () => {
    const { sent } = fakeServer({ 'PUT /api/sheets/HRN-0001-1/rack': {} });
    const { user } = show(surface([sheet()], []));
    await user.click(screen.getByRole('button', { name: 'Throw away' }));
    expect(await screen.findByText('HRN-0001-1 was thrown away.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take it back' }));
    await waitFor(() => expect(sent.map(({ body }) => body)).toEqual([{ onRack: false }, { onRack: true }]));
  });

  it('do not say that a sheet was thrown away where it was refused', async () => {
    fakeServer({
      'PUT /api/sheets/HRN-0001-1/rack': new Refused(409, { title: 'It is being read.', detail: 'Wait.' }),
    });
    const { user } = show(surface([sheet()], []));
    await user.click(screen.getByRole('button', { name: 'Throw away' }));
    expect(await screen.findByText('It is being read. Wait.')).toBeTruthy();
    expect(screen.queryByText('HRN-0001-1 was thrown away.')).toBeNull();
  });

  it('show what is older a page at a time, and say so where it cannot be had', async () => {
    const { sent } = fakeServer({
      'GET /api/conditions/4/sheets?after=5': { rows: [sheet({ code: 'HRN-0000-1' })], next: null },
      'GET /api/conditions/4/readings?after=9': new Refused(500, { title: 'Away.', detail: 'Wait.' }),
    });
    const { user } = show(
      <SheetsSurface
        conditionId={4}
        sheets={{ rows: [sheet()], next: 5 }}
        readings={{ rows: [reading()], next: 9 }}
        nowMs={0}
      />,
    );
    const [readings, sheets] = screen.getAllByRole('button', { name: 'Show older' });
    await user.click(sheets ?? document.body);
    expect(await screen.findByText('HRN-0000-1')).toBeTruthy();
    expect(screen.getAllByRole('button', { name: 'Show older' })).toHaveLength(1);
    await user.click(readings ?? document.body);
    expect((await screen.findByRole('alert')).textContent).toBe('Away. Wait.');
    expect(sent.filter(({ method }) => method !== 'GET')).toEqual([]);
  });

  it('are found by what is typed, in all pages, and say where there is none', async () => {
    const { sent } = fakeServer({
      'GET /api/conditions/4/sheets': ({ path }: Sent) => {
        const find = new URLSearchParams(path.split('?')[1]).get('find');
        return { rows: find === '77' ? [sheet({ code: 'HRN-0077-1' })] : [], next: null };
      },
      'GET /api/conditions/4/readings': { rows: [], next: null },
    });
    const { user } = show(surface([sheet()], [reading()]));
    await user.type(screen.getByLabelText('Find'), '77');
    expect(await screen.findByText('HRN-0077-1')).toBeTruthy();
    expect(screen.queryByText('HRN-0001-1')).toBeNull();
    await user.type(screen.getByLabelText('Find'), 'x');
    expect(await screen.findByText('None has such a code, chart or mode.')).toBeTruthy();
    await user.clear(screen.getByLabelText('Find'));
    expect(await screen.findByText('HRN-0001-1')).toBeTruthy();
    expect(sent.every(({ method }) => method === 'GET')).toBe(true);
  });
});
