import { describe, expect, it } from 'vitest';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { createRandom } from '../numerics/random.ts';
import { CMF_1964_10DEG, ILLUMINANT_TABLES, TABLE_COUNT } from '../spectral/data/cieTables.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { spectraToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import { barFigures } from './barFigures.ts';
import type { BarReading } from './barReading.ts';
import type { ColourBar } from './colourBar.ts';
import { readIncoming } from './incomingSheet.ts';
import { processUnit } from './pressUnit.ts';
import { runAdvice } from './runAdvice.ts';
import { isUsualLight, labInLight, lightWords, readingInLight, USUAL_LIGHT } from './runLight.ts';
import type { RunLight } from './runLight.ts';
import { USUAL_SETTINGS } from './runSettings.ts';

const GRID = GRID_380_730_10;
const A10: RunLight = { light: 'A', observer: '10deg' };
const D50 = createXyzWeights(GRID, tableIlluminant('D50'), '2deg');

/** Paper, solid and tint of one ink. */
const UNITS = [processUnit('C')];
const BAR: ColourBar = {
  ...{ zones: 1, zoneMm: 30, patchMm: 5 },
  patches: [
    { kind: 'paper', zone: 0, tones: [0] },
    { kind: 'solid', zone: 0, tones: [1] },
    { kind: 'tint', zone: 0, tones: [0.5] },
  ],
};
const ramp = (depth: number): number[] =>
  gridWavelengths(GRID).map((nm) => 0.88 * 10 ** (-depth / (1 + ((nm - 640) / 60) ** 2)));
const SPECTRA = Float64Array.from([0, 0.7, 0.25].flatMap(ramp));

function readingOf(spectra: Float64Array): BarReading {
  const xyz = new Float64Array((3 * spectra.length) / GRID.count);
  spectraToXyz(D50, spectra, xyz);
  const density = Float64Array.from(
    { length: (4 * spectra.length) / GRID.count },
    (_, i) => [0.05, 1.45, 0.45].at(i >> 2) ?? NaN,
  );
  return { xyz, density, grid: GRID, spectra };
}

/** What no eye sees under D50 added to the solid: orthogonal to its weights. */
function metamerOf(spectra: Float64Array): Float64Array {
  const random = createRandom(4);
  const wave = Float64Array.from(GRID_BANDS, (band) => Math.sin(band / 2.5) + 0.1 * random.normal());
  const axes = [0, 1, 2].map((axis) => Float64Array.from(GRID_BANDS, (band) => D50.weights[3 * band + axis]));
  const bases: Float64Array[] = [];
  const dot = (a: Float64Array, b: Float64Array): number =>
    a.reduce((sum, value, i) => sum + value * b[i], 0);
  const without = (vector: Float64Array): Float64Array =>
    bases.reduce((left, base) => {
      const along = dot(left, base) / dot(base, base);
      return left.map((value, i) => value - along * base[i]);
    }, vector);
  for (const axis of axes) bases.push(without(axis));
  const unseen = without(wave);
  return spectra.map((value, i) =>
    Math.floor(i / GRID.count) === 1 ? value + 0.1 * unseen[i % GRID.count] : value,
  );
}
const GRID_BANDS = Array.from({ length: GRID.count }, (_, band) => band);

describe('colours in the light of a run', () => {
  it('are those told for D50 and 2°, and need spectra for any other light or observer', () => {
    const lab = Float64Array.from([50, 1, 2]);
    expect(labInLight({ lab }, USUAL_LIGHT)).toBe(lab);
    expect(isUsualLight({ light: 'D50', observer: '10deg' })).toBe(false);
    expect(isUsualLight({ light: 'D65', observer: '2deg' })).toBe(false);
    expect([...labInLight({ lab }, A10)]).toEqual([NaN, NaN, NaN]);
    expect(lightWords(A10)).toBe('A/10°');
    expect(() =>
      labInLight({ lab, spectra: { grid: GRID, values: SPECTRA } }, { ...A10, light: 'F99' as 'A' }),
    ).toThrow('F99');
  });

  it('are what a sum over the tables of CIE gives', () => {
    // A parabola is interpolated without error; beyond the grid the last band holds.
    const curve = (nm: number): number => {
      const x = (Math.min(nm, 730) - 555) / 175;
      return 0.4 + 0.2 * x - 0.25 * x * x;
    };
    const sum = [0, 0, 0];
    const white = [0, 0, 0];
    for (let i = 0; i < TABLE_COUNT; i++)
      [CMF_1964_10DEG.x, CMF_1964_10DEG.y, CMF_1964_10DEG.z].forEach((matching, axis) => {
        const light = ILLUMINANT_TABLES.A[i] * matching[i];
        sum[axis] += light * curve(380 + 5 * i);
        white[axis] += light;
      });
    const scaled = (values: number[]) =>
      values.map((value) => (100 * value) / white[1]) as [number, number, number];
    const wanted = xyzToLab(scaled(sum), scaled(white));
    const read = readingInLight(readingOf(Float64Array.from(gridWavelengths(GRID), curve)), A10);
    wanted.forEach((value, axis) => expect(read[axis]).toBeCloseTo(value, 9));
  });

  it('are not known where a patch is open', () => {
    const open = Float64Array.from(SPECTRA);
    open.fill(NaN, GRID.count, 2 * GRID.count);
    const lab = readingInLight(readingOf(open), A10);
    expect([lab[0], lab[3], lab[6]]).toEqual([expect.any(Number), NaN, expect.any(Number)]);
    expect(lab[0]).toBeGreaterThan(90);
  });
});

describe('a bar judged in another light', () => {
  const ok = readingOf(SPECTRA);
  const aims = {
    ...{ lab: measuredLabRows(ok.xyz), tone: Float64Array.from([NaN, NaN, 0.6]) },
    spectra: { grid: GRID, values: SPECTRA },
  };
  const other = readingOf(metamerOf(SPECTRA));
  const judged = (seen: RunLight) => barFigures(BAR, UNITS, other, aims, { ...USUAL_SETTINGS, ...seen });

  it('shows what D50 hides, and leaves tone values and densities as they are', () => {
    const [usual, lamp] = [judged(USUAL_LIGHT), judged(A10)];
    expect(usual.deltaE[1]).toBeLessThan(1e-6);
    expect(lamp.deltaE[1]).toBeGreaterThan(0.5);
    expect(lamp.deltaE[0]).toBeLessThan(1e-9);
    expect([...lamp.density]).toEqual([...usual.density]);
    expect([...lamp.other]).toEqual([...usual.other]);
  });

  it('is judged by nothing where the aims have no spectra', () => {
    const { deltaE } = barFigures(
      BAR,
      UNITS,
      other,
      { ...aims, spectra: undefined },
      { ...USUAL_SETTINGS, ...A10 },
    );
    expect([...deltaE]).toEqual([NaN, NaN, NaN]);
  });

  it('is moved by what it looks like there, and by nothing where that is not known', () => {
    const settings = { ...USUAL_SETTINGS, ...A10 };
    const plan = { units: UNITS, bar: BAR, aims, settings };
    const lineOf = (reading: BarReading) => runAdvice(plan, [{ impression: 100, reading }], []).lines[0];
    expect(lineOf(other).zones[0].deltaE).toBeCloseTo(judged(A10).deltaE[1], 9);
    expect(lineOf(ok).zones[0].bestDeltaE).toBeLessThan(0.05);
    const bare = lineOf({ xyz: ok.xyz, density: ok.density });
    expect([bare.zones[0].deltaE, bare.advice.changes[0]]).toEqual([NaN, 0]);
    expect(bare.zones[0].density).toBeCloseTo(1.4, 9);
  });

  it('takes spectra alone', () => {
    const lab = [50, -30, -40];
    const sheet = {
      impression: 1,
      patches: [1, 2, 3].map((patch) => ({ patch, lab, density: [1, 1, 1, 1] })),
    };
    const refused = readIncoming({ bar: BAR, aims, settings: { ...USUAL_SETTINGS, ...A10 } }, sheet);
    expect(!refused.ok && refused.issues[0].expected).toBe('spectra, since this run is judged under A/10°');
    expect(readIncoming({ bar: BAR, aims, settings: USUAL_SETTINGS }, sheet).ok).toBe(true);
  });
});
