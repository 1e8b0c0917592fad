import { describe, expect, it } from 'vitest';
import expected from '../../test/data/pressFigures.json' with { type: 'json' };
import { barFigures } from './barFigures.ts';
import { barVerdict, packFigures, patchMeasures } from './barVerdict.ts';
import { capability, LEAST_FOR_CAPABILITY, shareOf } from './capability.ts';
import type { BarPatch, ColourBar } from './colourBar.ts';
import { processUnit } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';
import { USUAL_SETTINGS, USUAL_TOLERANCES } from './runSettings.ts';
import { variation } from './okVariation.ts';

const UNITS: readonly PressUnit[] = [
  ...(['C', 'M', 'Y'] as const).map(processUnit),
  { ink: 'Marsh Green', filter: 'red' },
];
const NAMES = Object.keys(expected.patches) as (keyof typeof expected.patches)[];
const KINDS: Readonly<Record<string, readonly [BarPatch['kind'], readonly number[]]>> = {
  paper: ['paper', [0, 0, 0, 0]],
  'C solid': ['solid', [1, 0, 0, 0]],
  'M solid': ['solid', [0, 1, 0, 0]],
  'Y solid': ['solid', [0, 0, 1, 0]],
  'C 50': ['tint', [0.5, 0, 0, 0]],
  'M 50': ['tint', [0, 0.5, 0, 0]],
  'Y 50': ['tint', [0, 0, 0.5, 0]],
  'C 75': ['tint', [0.75, 0, 0, 0]],
  'C + M': ['overprint', [1, 1, 0, 0]],
  grey: ['grey', [0.5, 0.4, 0.4, 0]],
  'lines along': ['slur along', [0.4, 0, 0, 0]],
  'lines across': ['slur across', [0.4, 0, 0, 0]],
  'spot solid': ['solid', [0, 0, 0, 1]],
  'spot 50': ['tint', [0, 0, 0, 0.5]],
};
const BAR: ColourBar = {
  ...{ zones: 1, zoneMm: 100, patchMm: 5 },
  patches: NAMES.map((name) => ({ kind: KINDS[name][0], zone: 0, tones: KINDS[name][1] })),
};
const READING = {
  xyz: Float64Array.from(NAMES.flatMap((name) => expected.patches[name].xyz)),
  density: Float64Array.from(NAMES.flatMap((name) => expected.patches[name].density)),
};
const aimOf = (name: string): readonly number[] =>
  (expected.aims as Readonly<Record<string, readonly number[]>>)[name] ?? [NaN, NaN, NaN];
const AIMS = {
  lab: Float64Array.from(NAMES.flatMap(aimOf)),
  tone: Float64Array.from(NAMES, (name) => (expected.tones as Readonly<Record<string, number>>)[name] ?? NaN),
};
const at = (name: keyof typeof expected.patches): number => NAMES.indexOf(name);
const figures = barFigures(BAR, UNITS, READING, AIMS, USUAL_SETTINGS);

describe('figures of a bar, beside those of the kept script', () => {
  it.each(Object.entries(expected.deltaE))('ΔE00 of %s', (name, value) =>
    expect(figures.deltaE[NAMES.indexOf(name as (typeof NAMES)[number])]).toBeCloseTo(value, 8),
  );
  it.each(Object.entries(expected.toneDeviation))('tone value of %s', (name, value) =>
    expect(figures.other[NAMES.indexOf(name as (typeof NAMES)[number])]).toBeCloseTo(value, 8),
  );
  it('greys, trapping, contrast, slur and midtone spread', () => {
    expect(figures.other[at('grey')]).toBeCloseTo(expected.deltaCh, 8);
    expect(figures.other[at('C + M')]).toBeCloseTo(expected.trapping, 8);
    expect(figures.contrast[at('C 75')]).toBeCloseTo(expected.contrast, 8);
    expect(figures.other[at('lines across')]).toBeCloseTo(expected.slur, 8);
    expect(figures.spread).toBeCloseTo(expected.spread, 8);
    expect(figures.density[at('M solid')]).toBeCloseTo(1.45, 12);
    // What has no such figure has none.
    expect([figures.other[at('C solid')], figures.contrast[at('C 50')], figures.density[at('grey')]]).toEqual(
      [NaN, NaN, NaN],
    );
  });

  it('shares and capability with their intervals', () => {
    const [low, high] = expected.wilson['27 of 30'];
    const share = shareOf(27, 30);
    expect([share.low, share.high]).toEqual([expect.closeTo(low, 10), expect.closeTo(high, 10)]);
    expect(shareOf(30, 30).low).toBeCloseTo(expected.wilson['30 of 30'][0], 10);
    expect(() => shareOf(0, 0)).toThrow('nothing');
    const told = capability(expected.series, [undefined, 3]);
    expect([told?.low, told?.cpk, told?.high]).toEqual(
      expected.cpk.map((value) => expect.closeTo(value, 10) as number),
    );
    expect(told?.cp).toBeUndefined();
    expect(capability(expected.series.slice(0, LEAST_FOR_CAPABILITY), [0, 3])?.cp).toBeGreaterThan(0);
    expect(capability(expected.series.slice(0, LEAST_FOR_CAPABILITY - 1), [0, 3])).toBeUndefined();
    expect(capability(new Array<number>(30).fill(1), [0, 3])).toBeUndefined();
  });
});

describe('a bar that was not read whole', () => {
  const without = (names: readonly (typeof NAMES)[number][]) => {
    const xyz = Float64Array.from(READING.xyz);
    const density = Float64Array.from(READING.density);
    for (const name of names) {
      xyz.fill(NaN, 3 * at(name), 3 * at(name) + 3);
      density.fill(NaN, 4 * at(name), 4 * at(name) + 4);
    }
    return barFigures(BAR, UNITS, { xyz, density }, AIMS, USUAL_SETTINGS);
  };

  it('has no figure that hangs on what is missing, and all others', () => {
    const noSolid = without(['M solid']);
    expect([noSolid.other[at('M 50')], noSolid.other[at('C + M')], noSolid.spread]).toEqual([NaN, NaN, NaN]);
    expect(noSolid.other[at('C 50')]).toBe(figures.other[at('C 50')]);
    const noPaper = without(['paper']);
    expect(noPaper.density[at('C solid')]).toBeNaN();
    expect(noPaper.deltaE[at('C solid')]).toBe(figures.deltaE[at('C solid')]);
  });

  it('tells tone values by density where a densitometer tells no more', () => {
    const { density } = READING;
    const bare = barFigures(
      BAR,
      UNITS,
      { xyz: new Float64Array(READING.xyz.length).fill(NaN), density },
      AIMS,
      USUAL_SETTINGS,
    );
    const area = (d: number): number => 1 - 10 ** -d;
    expect(bare.other[at('C 50')]).toBeCloseTo(100 * (area(0.4) / area(1.42) - 0.64), 8);
    expect(bare.deltaE[at('C solid')]).toBeNaN();
  });
});

describe('a verdict', () => {
  const settings = { formula: 'ΔE00' as const, tolerances: { ...USUAL_TOLERANCES['ΔE00'] } };
  it('counts what is just outside and not what is just inside, and what was not read not at all', () => {
    const measures = patchMeasures(BAR, UNITS, settings);
    expect(measures[at('lines along')]).toBeUndefined();
    expect(measures[at('C solid')]).toEqual({ quantity: 'ΔE', limit: 3.5 });
    expect(measures[at('spot solid')]).toEqual({ quantity: 'ΔE', limit: 2.5 });
    const flat = {
      deltaE: figures.deltaE.map(() => 3.5),
      other: figures.other.map(() => -4),
      density: figures.density,
      contrast: figures.contrast,
      spread: 0,
    };
    // Of limits 3 (paper, greys), 3.5 (solids), 2.5 (spot), 4.2 (overprint) and 4 (tones).
    expect(barVerdict(measures, packFigures(flat)).outside.map((patch) => NAMES[patch])).toEqual([
      'paper',
      'grey',
      'spot solid',
    ]);
    flat.deltaE[at('C solid')] = 3.51;
    flat.other[at('C 50')] = -4.01;
    flat.deltaE[at('C + M')] = 4.2;
    flat.deltaE[at('M solid')] = NaN;
    const verdict = barVerdict(measures, packFigures(flat));
    expect(verdict.outside.map((patch) => NAMES[patch])).toEqual([
      'paper',
      'C solid',
      'C 50',
      'grey',
      'spot solid',
    ]);
    expect(verdict.judged).toBe(NAMES.length - 3);
    expect([...packFigures(flat).subarray(3 * at('C 50'), 3 * at('C 50') + 3)]).toEqual([
      3.5,
      flat.density[at('C 50')],
      -4.01,
    ]);
  });
});

describe('variation from the OK sheet', () => {
  it('keeps to 68 % within the limit and 95 % within twice', () => {
    const sheets = (inside: number, near: number, far: number): number[] => [
      ...new Array<number>(inside).fill(4),
      ...new Array<number>(near).fill(8),
      ...new Array<number>(far).fill(8.1),
    ];
    expect(variation(sheets(68, 27, 5), 4)).toMatchObject({
      kept: true,
      kept95: true,
      within: 0.68,
      sheets: 100,
    });
    expect(variation(sheets(67, 28, 5), 4)).toMatchObject({ kept: false, kept95: true });
    expect(variation(sheets(68, 26, 6), 4)).toMatchObject({ kept: true, kept95: false });
    expect(variation([NaN, 1], 4)?.sheets).toBe(1);
    expect(variation([NaN], 4)).toBeUndefined();
  });
});
