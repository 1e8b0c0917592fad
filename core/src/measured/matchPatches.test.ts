import { describe, expect, it } from 'vitest';
import { genericLabRows } from '../charts/expectedColours.ts';
import { layoutChart } from '../charts/layoutChart.ts';
import { makeRgbChart } from '../charts/rgbChart.ts';
import { RGB } from '../device/process.ts';
import { gatherRows } from '../numerics/gatherRows.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { doubtfulPatches } from './doubtfulRows.ts';
import { matchPatches } from './matchPatches.ts';
import type { PrintedChart } from './matchPatches.ts';
import type { MeasuredMode } from './measurement.ts';

const COUNT = 150;

/** A chart, and what a device of another character than the generic one prints of it. */
function printed(seed: number): { readonly chart: PrintedChart; readonly lab: Float64Array } {
  const { device } = makeRgbChart(COUNT, seed);
  const ids = Array.from({ length: device.length / 3 }, (_, i) => String(i + 1));
  const random = createRandom(seed);
  const lab = genericLabRows(RGB, device, 3).map((value, i) =>
    i % 3 === 0 ? 12 + 0.85 * value + 2 * random.normal() : 0.7 * value + 3 * random.normal(),
  );
  const sent = device.map((value) => value ** 1.2);
  return {
    chart: { process: RGB, ids, asked: device, sent, layout: layoutChart(RGB, device, 'a4', seed) },
    lab,
  };
}

/** Rows of a file in an order of its own. */
function file(
  { chart, lab }: ReturnType<typeof printed>,
  order: readonly number[],
  {
    ids,
    device,
    places,
  }: { ids?: readonly string[]; device?: Float64Array; places?: readonly string[] } = {},
): MeasuredMode {
  return {
    mode: 'M1',
    places,
    set: {
      ids: ids ?? order.map((_, i) => `row ${i}`),
      process: device === undefined ? undefined : chart.process,
      device: device === undefined ? undefined : gatherRows(device, order, 3),
      lab: gatherRows(lab, order, 3),
      conditions: {},
      notes: [],
    },
  };
}

const right = (rows: readonly (readonly number[])[] | undefined, order: readonly number[]): boolean =>
  rows !== undefined && rows.every((own, patch) => own.every((row) => order[row] === patch));
const shuffled = (count: number, seed: number): number[] =>
  shuffle(
    Array.from({ length: count }, (_, i) => i),
    createRandom(seed),
  );

describe('rows of a file', () => {
  const own = printed(3);
  const count = own.chart.ids.length;
  const { asked = new Float64Array(0), sent, layout, ids } = own.chart;

  it('are matched by device values in any order, as asked or as sent, rounded to per cent', () => {
    const order = shuffled(count, 8);
    const groups = (rows: readonly (readonly number[])[]): boolean =>
      rows.every((list, patch) =>
        list.every((row) => [0, 1, 2].every((c) => asked[3 * order[row] + c] === asked[3 * patch + c])),
      );
    for (const [device, by] of [
      [asked, 'device values as asked'],
      [sent, 'device values as sent'],
      [asked.map((value) => Math.round(100 * value) / 100), 'device values as asked'],
    ] as const) {
      const match = matchPatches(own.chart, file(own, order, { device }));
      expect(match?.by).toBe(by);
      expect(match?.foreign).toEqual([]);
      expect(match?.rows.every((rows) => rows.length === 1)).toBe(true);
      if (device !== sent) expect(groups(match?.rows ?? [])).toBe(true);
    }
  });

  it('leave patches open that are missing, keep repeats together and name what is foreign', () => {
    const order = [
      ...Array.from({ length: count }, (_, i) => i),
      ...Array.from({ length: count }, (_, i) => i),
    ].slice(5);
    const match = matchPatches(own.chart, file(own, order, { device: asked }));
    expect(match?.rows.reduce((sum, rows) => sum + rows.length, 0)).toBe(2 * count - 5);
    expect(match?.rows.filter((rows) => rows.length === 1)).toHaveLength(5);
    const page = matchPatches(own.chart, file(own, order.slice(0, 40), { device: asked }));
    expect(page?.rows.filter((rows) => rows.length === 0)).toHaveLength(count - 40);
    const foreign = asked.slice();
    foreign.set([0.123, 0.777, 0.456], 3 * 20);
    expect(matchPatches(own.chart, file(own, shuffled(count, 1), { device: foreign }))?.foreign).toHaveLength(
      1,
    );
    expect(
      matchPatches(own.chart, file(own, [1, 2, 3], { device: asked.map((v) => 0.5 + 0.001 * v) })),
    ).toBeUndefined();
  });

  it('of one strip fill that strip, though some of its patches stand elsewhere as well', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const other = printed(seed);
      for (const strip of other.chart.layout.pages.flat()) {
        const match = matchPatches(
          other.chart,
          file(other, [...strip].reverse(), { device: other.chart.asked }),
        );
        expect(strip.every((patch) => match?.rows[patch].length === 1)).toBe(true);
      }
    }
  });

  it('are matched without device values by ids, places or order, whichever the colours speak for', () => {
    const reading = layout.pages.flat(2);
    const named = shuffled(count, 5);
    const byIds = matchPatches(own.chart, file(own, named, { ids: named.map((i) => ids[i]) }));
    expect(byIds?.by).toBe('patch ids');
    expect(right(byIds?.rows, named)).toBe(true);
    const strips = layout.pages.flat();
    const place = new Map(
      strips.flatMap((rows, s) =>
        rows.map((row, i) => [row, `${String.fromCharCode(65 + s)}${i + 1}`] as const),
      ),
    );
    const byPlaces = matchPatches(
      own.chart,
      file(own, named, { places: named.map((i) => place.get(i) ?? '') }),
    );
    expect(byPlaces?.by).toBe('places');
    expect(right(byPlaces?.rows, named)).toBe(true);
    const turned = new Map(
      strips.flatMap((rows, s) =>
        rows.map((row, i) => [row, `${String.fromCharCode(65 + i)}${s + 1}`] as const),
      ),
    );
    expect(
      right(
        matchPatches(own.chart, file(own, named, { places: named.map((i) => turned.get(i) ?? '') }))?.rows,
        named,
      ),
    ).toBe(true);
    expect(matchPatches(own.chart, file(own, reading))?.by).toBe('order of reading');
    expect(matchPatches(own.chart, file(own, [...ids.keys()]))?.by).toBe('order of the chart');
  });

  it('numbered in the order of reading are not taken for the ids of the chart', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const other = printed(seed);
      const reading = other.chart.layout.pages.flat(2);
      const match = matchPatches(
        other.chart,
        file(other, reading, { ids: reading.map((_, i) => String(i + 1)) }),
      );
      expect(match?.by).toBe('order of reading');
      expect(right(match?.rows, reading)).toBe(true);
    }
  });

  it('in no order that can be known are not matched', () => {
    for (let seed = 1; seed <= 40; seed++)
      expect(matchPatches(own.chart, file(own, shuffled(count, 100 + seed)))).toBeUndefined();
    const other = { ...own, lab: own.lab.map((_, i) => (i % 3 === 0 ? 50 : 0)) };
    expect(matchPatches(own.chart, file(other, layout.pages.flat(2)))).toBeUndefined();
  });
});

describe('doubtful patches', () => {
  it('are those that their neighbours contradict, and none on a sound sheet', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const { chart, lab } = printed(seed);
      const device = chart.asked ?? new Float64Array(0);
      expect(doubtfulPatches(device, 3, lab)).toEqual([]);
      const [a, b] = [7 + seed, 90 + seed];
      const swapped = lab.slice();
      const far = Math.hypot(...[0, 1, 2].map((axis) => lab[3 * a + axis] - lab[3 * b + axis])) > 60;
      swapped.set(lab.subarray(3 * a, 3 * a + 3), 3 * b);
      swapped.set(lab.subarray(3 * b, 3 * b + 3), 3 * a);
      const found = doubtfulPatches(device, 3, swapped).map(({ patch }) => patch);
      expect(found.every((patch) => patch === a || patch === b)).toBe(true);
      if (far) expect(found.length).toBeGreaterThan(0);
    }
  });
});
