import { describe, expect, it } from 'vitest';
import { bandpassCorrected } from './bandpass.ts';

const GRID = { startNm: 400, stepNm: 10, count: 31 };

/** What an instrument with a triangular bandpass of 10 nm reads of a spectrum, by sums over 0.1 nm. */
function read(spectrum: (nm: number) => number): Float64Array {
  return Float64Array.from({ length: GRID.count }, (_, band) => {
    let sum = 0;
    let weight = 0;
    for (let off = -100; off <= 100; off++) {
      const own = 1 - Math.abs(off) / 100;
      sum += own * spectrum(GRID.startNm + band * GRID.stepNm + off / 10);
      weight += own;
    }
    return sum / weight;
  });
}

const errorOf = (values: Float64Array, spectrum: (nm: number) => number): number =>
  Math.max(
    ...[...values]
      .slice(1, -1)
      .map((value, i) => Math.abs(value - spectrum(GRID.startNm + (i + 1) * GRID.stepNm))),
  );

describe('the correction for a bandpass of 10 nm', () => {
  it('gives a parabola back, and leaves a slope as it is', () => {
    const parabola = (nm: number) => 0.2 + ((nm - 550) / 300) ** 2;
    const values = read(parabola);
    expect(errorOf(values, parabola)).toBeGreaterThan(1e-4);
    expect(errorOf(bandpassCorrected({ grid: GRID, values }).values, parabola)).toBeLessThan(2e-7);
    const slope = Float64Array.from({ length: 31 }, (_, i) => 0.1 + 0.02 * i);
    const same = bandpassCorrected({ grid: GRID, values: slope }).values;
    same.subarray(1, 30).forEach((value, i) => expect(value).toBeCloseTo(slope[i + 1], 12));
    // The first and the last band by their one neighbour, as ASTM E2729 has it.
    expect(same[0]).toBeCloseTo((13 / 12) * slope[0] - slope[1] / 12, 12);
    expect(same[30]).toBeCloseTo((13 / 12) * slope[30] - slope[29] / 12, 12);
  });

  it('takes most of the error out of a steep edge', () => {
    const edge = (nm: number) => 0.05 + 0.8 / (1 + Math.exp(-(nm - 560) / 12));
    const values = read(edge);
    const corrected = bandpassCorrected({ grid: GRID, values }).values;
    expect(errorOf(corrected, edge)).toBeLessThan(0.25 * errorOf(values, edge));
  });

  it('corrects each patch by itself, and refuses what has no neighbours', () => {
    const [one, two] = [read((nm) => nm / 1000), read((nm) => (nm / 1000) ** 3)];
    const both = bandpassCorrected({ grid: GRID, values: Float64Array.of(...one, ...two) }).values;
    expect([...both.subarray(31)]).toEqual([...bandpassCorrected({ grid: GRID, values: two }).values]);
    const few = { grid: { ...GRID, count: 2 }, values: Float64Array.of(0.5, 0.6) };
    expect(() => bandpassCorrected(few)).toThrow(RangeError);
  });
});
