import { describe, expect, it } from 'vitest';
import { statusDensity } from '@melto/core/density/density';
import { densities } from '@melto/core/density/density';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { bestDensity } from '@melto/core/press/bestDensity';
import { completedBy, openPatches } from '@melto/core/press/barReading';
import { capability } from '@melto/core/press/capability';
import { designBar, patchesOf } from '@melto/core/press/colourBar';
import { readIncoming } from '@melto/core/press/incomingSheet';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import { processUnit } from '@melto/core/press/pressUnit';
import { runAdvice } from '@melto/core/press/runAdvice';
import type { RunPlan } from '@melto/core/press/runAdvice';
import { analyseRun, outsideOf } from '@melto/core/press/runAnalysis';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { thicknessLine } from '@melto/core/press/thicknessLine';
import { unwrap } from '@melto/core/result';
import { readPressSheet } from '@melto/simulator/pressRun';
import type { SimulatedRun } from '@melto/simulator/pressRun';

const GRID = GRID_380_730_10;
const UNITS = (['K', 'C', 'M', 'Y'] as const).map(processUnit);
const BAR = unwrap(designBar(UNITS, { zones: 12, zoneMm: 32, patchMm: 5 }));
const RUN: SimulatedRun = {
  ...{
    device: 'osprey',
    stock: 'lantern-gloss-150',
    mode: '175 lpi',
    seed: 5,
    bar: BAR,
    channels: [3, 0, 1, 2],
  },
  unevenStart: 0,
};
const rowOf = (spectra: Float64Array, at: number): Float64Array =>
  spectra.subarray(GRID.count * at, GRID.count * (at + 1));
const scan = (spectra: Float64Array, impression: number): IncomingSheet => ({
  impression,
  grid: GRID,
  patches: BAR.patches.map((_, at) => ({ spectrum: [...rowOf(spectra, at)] })),
});
/** The mean press as the aims. */
const MEAN = readPressSheet(RUN, [], 0, 'M1', 'none');
const PLAN: RunPlan = {
  ...{ units: UNITS, bar: BAR },
  aims: {
    lab: Float64Array.from(BAR.patches.flatMap((_, at) => [...spectrumLab(GRID, rowOf(MEAN, at))])),
    tone: new Float64Array(BAR.patches.length).fill(NaN),
  },
  settings: USUAL_SETTINGS,
};
const DENSITY = statusDensity(GRID, 'E');

describe('densities with their weights worked out once', () => {
  it.each(['E', 'T', 'A', 'I'] as const)('are those of status %s', (status) => {
    const of = statusDensity(GRID, status);
    const spectrum = rowOf(MEAN, 9);
    const slow = densities(GRID, spectrum, status);
    for (const filter of ['red', 'green', 'blue', 'visual'] as const)
      expect(of[filter](spectrum)).toBeCloseTo(slow[filter], 12);
  });
});

describe('the best density', () => {
  // Unevenly inked zones are so many densities that were tried: the simulator tells what each would look like.
  const tried = readPressSheet({ ...RUN, unevenStart: 0.3, seed: 8 }, [], 0, 'M1', 'none');
  const aims: readonly Lab[] = [
    [20, 1, 2],
    [53, -34, -52],
    [46, 76, -8],
    [88, -8, 96],
  ];
  it.each([0, 1, 2, 3])(
    'of unit %d is within ΔE 0.1 of the least over the densities that are tried',
    (unit) => {
      const { filter } = UNITS[unit];
      const solids = patchesOf(BAR, 'solid', unit).map((at) => rowOf(tried, at));
      const light = (spectrum: Float64Array) => ({ light: spectrum, density: DENSITY[filter](spectrum) });
      const sheet = readPressSheet({ ...RUN, unevenStart: 0.06, seed: 3 }, [], 0);
      const read = patchesOf(BAR, 'solid', unit).map((at) => rowOf(sheet, at));
      const line = thicknessLine(light(rowOf(sheet, patchesOf(BAR, 'paper')[0])), read.map(light));
      const labOf = (spectrum: ArrayLike<number>): Lab => spectrumLab(GRID, spectrum);
      const told = bestDensity(line, labOf, read[0], aims[unit], deltaE2000, 5);
      const proposed = DENSITY[filter](read[0]) + told.change;
      const off = (solid: Float64Array): number => deltaE2000(aims[unit], labOf(solid));
      // A fine ladder of thicknesses, printed by the simulator.
      const ladder = Array.from({ length: 161 }, (_, i) => 0.6 + 0.005 * i).map((share) =>
        printed(unit, share),
      );
      const least = Math.min(...ladder.map(off));
      const at = ladder.reduce((a, b) =>
        Math.abs(DENSITY[filter](b) - proposed) < Math.abs(DENSITY[filter](a) - proposed) ? b : a,
      );
      expect(off(at) - least).toBeLessThan(0.1);
      expect(solids.length).toBe(12);
    },
  );

  /** The solid of a unit printed by the simulator with a share of its usual ink. */
  function printed(unit: number, share: number): Float64Array {
    const run = { ...RUN, events: [{ fromImpression: 0, unit, density: share - 1 }] };
    return Float64Array.from(
      rowOf(readPressSheet(run, [], 0, 'M1', 'none'), patchesOf(BAR, 'solid', unit)[0]),
    );
  }
});

describe('values of a sheet', () => {
  const noisy = readPressSheet({ ...RUN, unevenStart: 0.1, seed: 4 }, [], 100);
  const forth = unwrap(readIncoming(PLAN, scan(noisy, 100)));

  it('find their places whichever way round, with patches missing and others too many', () => {
    const whole = scan(noisy, 100);
    expect(forth).toMatchObject({ turned: false, surplus: 0 });
    const back = unwrap(readIncoming(PLAN, { ...whole, patches: [...whole.patches].reverse() }));
    expect(back.turned).toBe(true);
    expect(back.reading.xyz).toEqual(forth.reading.xyz);
    const some = whole.patches.filter((_, at) => at !== 11 && at !== 40);
    const holes = unwrap(readIncoming(PLAN, { ...whole, patches: some }));
    expect(openPatches(holes.reading)).toEqual([11, 40]);
    const paper = { spectrum: [...rowOf(MEAN, patchesOf(BAR, 'paper')[0])] };
    const more = unwrap(readIncoming(PLAN, { ...whole, patches: [paper, paper, ...whole.patches] }));
    expect(more.surplus).toBe(2);
    // One of the three papers is the bar's own.
    expect(more.reading.density.subarray(4)).toEqual(forth.reading.density.subarray(4));
  });

  it('are completed by what comes later, what is there stays', () => {
    const whole = scan(noisy, 100);
    const numbered = whole.patches.map((patch, at) => ({ ...patch, patch: at + 1 }));
    const half = unwrap(readIncoming(PLAN, { ...whole, patches: numbered.slice(0, 50) })).reading;
    const other = unwrap(
      readIncoming(PLAN, {
        ...whole,
        patches: numbered
          .slice(40)
          .map((patch) => ({ ...patch, spectrum: (patch.spectrum ?? []).map((r) => r * 0.9) })),
      }),
    ).reading;
    const both = completedBy(half, other);
    expect(openPatches(both)).toEqual([]);
    expect(both.xyz.subarray(0, 150)).toEqual(half.xyz.subarray(0, 150));
    expect(both.spectra?.subarray(36 * 60)).toEqual(other.spectra?.subarray(36 * 60));
    expect(() => completedBy(half, { xyz: new Float64Array(3), density: new Float64Array(4) })).toThrow(
      'a bar of 72 patches',
    );
  });

  const one = { patch: 1, density: [0.1, 0.1, 0.1, 0.1] };
  it.each<[string, Partial<IncomingSheet>, string]>([
    ['no patch', { patches: [] }, '1 to 1200 patches'],
    ['colours alone', { patches: [{ patch: 1, lab: [50, 0, 0] }] }, 'a spectrum or densities'],
    [
      'spectra without their wavelengths',
      { grid: undefined, patches: [{ spectrum: [0.5] }] },
      'the wavelengths',
    ],
    ['too few bands', { patches: [{ patch: 1, spectrum: [0.5] }] }, '36 values'],
    ['a density of 6.1', { patches: [{ ...one, density: [6.1, 0, 0, 0] }] }, 'values from -0.2 to 6'],
    ['a density that is none', { patches: [{ ...one, density: [NaN, 0, 0, 0] }] }, 'values from -0.2 to 6'],
    ['a patch beyond the bar', { patches: [{ ...one, patch: 73 }] }, '1 to 72'],
    ['a patch twice', { patches: [one, one] }, 'each patch once'],
    ['numbers for some', { patches: [one, { density: one.density }] }, 'a number for each patch or for none'],
    ['densities without numbers', { patches: [{ density: one.density }] }, 'numbers of the patches'],
    [
      'nothing but paper',
      { patches: Array.from({ length: 72 }, () => ({ spectrum: new Array<number>(36).fill(0.9) })) },
      '',
    ],
  ])('are refused with %s', (_, change, expected) => {
    const read = readIncoming(PLAN, { impression: 1, grid: GRID, patches: [], ...change });
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.issues[0].expected).toContain(expected);
  });

  it('keep the densities that an instrument tells', () => {
    const { reading } = unwrap(
      readIncoming(PLAN, {
        impression: 1,
        patches: [{ patch: 72, density: [0.3, 0.4, 0.5, 6], lab: [60, 1, 2] }],
      }),
    );
    expect([...reading.density.subarray(4 * 71)]).toEqual([0.3, 0.4, 0.5, 6]);
    expect(reading.spectra).toBeUndefined();
  });
});

describe('advice for a run', () => {
  const sheetOf = (run: SimulatedRun, impression: number, moves = []) => ({
    impression,
    reading: unwrap(readIncoming(PLAN, scan(readPressSheet(run, moves, impression), impression))).reading,
  });

  it('puts the unit first that moves most, and says what it is to bring', () => {
    const events = [
      { fromImpression: 0, unit: 2, density: -0.3 },
      { fromImpression: 0, unit: 1, density: 0.2 },
    ];
    const { lines, figures } = runAdvice(PLAN, [sheetOf({ ...RUN, events }, 100)], []);
    expect(lines.map(({ unit, advice }) => `${UNITS[unit].ink} ${advice.word}`)).toEqual([
      'M move',
      'C move',
      'K leave',
      'Y leave',
    ]);
    const [magenta] = lines;
    expect(magenta.advice.changes.every((change) => change > 0)).toBe(true);
    expect(magenta.worst).toBeGreaterThan(3.5);
    expect(Math.max(...magenta.zones.map(({ bestDeltaE }) => bestDeltaE))).toBeLessThan(1);
    expect(figures?.deltaE).toHaveLength(72);
  });

  it('goes by densities where these are the guide', () => {
    const [first] = [sheetOf(RUN, 100)];
    const zones = runAdvice(PLAN, [first], []).lines.find(({ unit }) => unit === 1)?.zones ?? [];
    const own = zones[5].density;
    const guided = (density: number) =>
      runAdvice(
        { ...PLAN, settings: { ...PLAN.settings, guide: 'density', densities: { C: density } } },
        [first],
        [],
      ).lines;
    expect(guided(own + 0.05).find(({ unit }) => unit === 1)?.advice.word).toBe('leave');
    const far = guided(own + 0.12).find(({ unit }) => unit === 1);
    expect(far?.advice.word).toBe('move');
    expect(far?.advice.changes[5]).toBeGreaterThan(0.08);
    // Inks that no density is told for are left as they are.
    expect(guided(own + 0.12).find(({ unit }) => unit === 3)?.advice.word).toBe('leave');
  });

  it('counts densities from the paper or from none, and moves alike', () => {
    const sheet = sheetOf({ ...RUN, unevenStart: 0.1 }, 100);
    const [overPaper, absolute] = (['paper', 'absolute'] as const).map((white) =>
      runAdvice({ ...PLAN, settings: { ...PLAN.settings, white } }, [sheet], []),
    );
    const [bare] = patchesOf(BAR, 'paper');
    for (const line of overPaper.lines) {
      const same = absolute.lines.find(({ unit }) => unit === line.unit);
      const filter = ['red', 'green', 'blue', 'visual'].indexOf(UNITS[line.unit].filter);
      const paper = sheet.reading.density[4 * bare + filter];
      const apart = (same?.zones[3].density ?? NaN) - line.zones[3].density;
      // Two papers lie on the bar: their mean is the base.
      expect(Math.abs(apart - paper)).toBeLessThan(0.01);
      expect(same?.advice.word).toBe(line.advice.word);
      line.advice.changes.forEach((change, zone) =>
        expect(same?.advice.changes[zone]).toBeCloseTo(change, 3),
      );
    }
    const solid = patchesOf(BAR, 'solid', 1)[0];
    expect(absolute.figures?.density[solid]).toBe(sheet.reading.density[4 * solid]);
  });

  it('tells what density cannot mend, by what it comes from', () => {
    const off = Float64Array.from(PLAN.aims.lab);
    const solid = patchesOf(BAR, 'solid', 3);
    for (const at of solid) off.set([off[3 * at], off[3 * at + 1] + 14, off[3 * at + 2]], 3 * at);
    const [paper] = patchesOf(BAR, 'paper');
    off[3 * paper + 2] -= 6;
    const tint = patchesOf(BAR, 'tint', 1)[0];
    const tone = PLAN.aims.tone.map((_, at) => (at === tint ? 0.3 : NaN));
    const { beyond, lines } = runAdvice({ ...PLAN, aims: { lab: off, tone } }, [sheetOf(RUN, 100)], []);
    expect(beyond.map(({ barrier }) => barrier)).toEqual(['stock', 'ink', 'dot gain']);
    expect(beyond[1].words).toContain('Y: at no density nearer');
    expect(lines.find(({ unit }) => unit === 3)?.advice.unreachable).toHaveLength(12);
    expect(runAdvice(PLAN, [sheetOf(RUN, 100)], []).beyond).toEqual([]);
  });

  it('counts no density over a paper that was not read: it would look like a jump', () => {
    const whole = sheetOf({ ...RUN, unevenStart: 0.1 }, 100);
    const density = Float64Array.from(whole.reading.density);
    const xyz = Float64Array.from(whole.reading.xyz);
    for (const at of patchesOf(BAR, 'paper')) {
      density.fill(NaN, 4 * at, 4 * at + 4);
      xyz.fill(NaN, 3 * at, 3 * at + 3);
    }
    const bare = { impression: 200, reading: { ...whole.reading, xyz, density } };
    const words = (sheets: ReturnType<typeof sheetOf>[], white: 'paper' | 'absolute' = 'paper'): string[] =>
      runAdvice({ ...PLAN, settings: { ...PLAN.settings, white } }, sheets, []).lines.map(
        ({ advice }) => advice.word,
      );
    expect(words([bare])).toEqual(['read', 'read', 'read', 'read']);
    // The sheet before still tells what it told; from a perfect reflector no paper is needed.
    expect(words([whole, bare])).toEqual(words([whole]));
    expect(words([bare], 'absolute')).not.toContain('read');
  });

  it('has nothing to say before the first sheet', () => {
    const { lines, figures } = runAdvice(PLAN, [], []);
    expect(lines.map(({ advice }) => advice.word)).toEqual(['read', 'read', 'read', 'read']);
    expect(figures).toBeUndefined();
  });
});

describe('the analysis of a run', () => {
  const sheets = [0, 1, 2, 3].map((at) => {
    const figures = new Float64Array(3 * BAR.patches.length).fill(1);
    // One solid of cyan outside on the last sheet, by a hair inside on the one before.
    const [, second] = patchesOf(BAR, 'solid', 1);
    figures[3 * second] = at === 3 ? 3.51 : at === 2 ? 3.5 : 1;
    if (at === 0) figures.fill(NaN, 3 * second, 3 * second + 3);
    return { impression: 100 * at, figures };
  });
  const told = analyseRun(BAR, UNITS, PLAN.settings, sheets);

  it('counts shares of sheets, patches, inks and zones, and what was not read nowhere', () => {
    expect(told.sheetShare).toMatchObject({ within: 3, of: 4 });
    const cyan = told.rows.find(({ key }) => key === 'solid C');
    expect(cyan?.share).toMatchObject({ within: 46, of: 47 });
    expect(cyan?.zones[1]).toMatchObject({ within: 2, of: 3 });
    expect(cyan?.zones[0]).toMatchObject({ within: 4, of: 4 });
    expect(cyan?.largest).toBe(3.51);
    expect(
      told.rows.map(({ key }) => key.split(' ')[0]).filter((kind, i, all) => all.indexOf(kind) === i),
    ).toEqual(['solid', 'tint', 'overprint', 'grey', 'paper']);
    expect(told.overTime.map(({ from, to }) => [from, to])).toEqual([
      [0, 0],
      [100, 100],
      [200, 200],
      [300, 300],
    ]);
    expect(told.overTime[3].share).toBeLessThan(1);
  });

  it('leads to the readings outside', () => {
    const at = (zone: number | undefined) =>
      outsideOf(BAR, UNITS, PLAN.settings, sheets, { key: 'solid C', zone }, 10);
    expect(at(1)).toEqual([{ impression: 300, patch: patchesOf(BAR, 'solid', 1)[1], value: 3.51 }]);
    expect(at(undefined)).toHaveLength(1);
    expect(at(0)).toEqual([]);
    expect(outsideOf(BAR, UNITS, PLAN.settings, sheets, { key: 'none', zone: 1 }, 10)).toEqual([]);
  });

  it('tells capability as from all values at once', () => {
    const many = Array.from({ length: 30 }, (_, sheet) => ({
      impression: sheet,
      figures: Float64Array.from({ length: 3 * BAR.patches.length }, (_, i) => Math.sin(i + 7 * sheet) + 1.5),
    }));
    const { rows } = analyseRun(BAR, UNITS, PLAN.settings, many);
    const yellow = patchesOf(BAR, 'tint', 3);
    const values = many.flatMap(({ figures }) => yellow.map((patch) => figures[3 * patch + 2]));
    const told = rows.find(({ key }) => key === 'tint Y')?.capability;
    const expected = capability(values, [-4, 4]);
    expect(told?.count).toBe(values.length);
    expect(told?.cpk).toBeCloseTo(expected?.cpk ?? NaN, 9);
    expect(told?.low).toBeCloseTo(expected?.low ?? NaN, 9);
  });

  it('of no sheet says nothing', () => {
    const none = analyseRun(BAR, UNITS, PLAN.settings, []);
    expect(none.sheetShare).toBeUndefined();
    expect(none.overTime).toEqual([]);
    expect(none.rows.every(({ share }) => share === undefined)).toBe(true);
  });
});
