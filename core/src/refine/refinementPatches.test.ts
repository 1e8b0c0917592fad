import { describe, expect, it } from 'vitest';
import type { Uncertainty } from '../characterise/uncertainty.ts';
import { expectedExtraInks } from '../charts/manyInkChart.ts';
import { genericLab } from '../charts/expectedColours.ts';
import { inkProcess } from '../device/process.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import { placeInksByModel } from '../separate/placedInks.ts';
import { refinementPatches, tiePatches } from './refinementPatches.ts';

const SEVEN = inkProcess([...'CMYKOGV']);
const EXTRA = expectedExtraInks(SEVEN);
/** Least sure far from an origin, alike where values are near. */
const FAR: Uncertainty = {
  noise: 0.1,
  at: (device) => {
    const own = Float64Array.from(device);
    return { device: own, own, other: own, variance: 1, weight: 1 };
  },
  covariance: (a, b) =>
    Math.exp(-a.device.reduce((sum, value, i) => sum + (value - b.device[i]) ** 2, 0) / 0.2),
};
const choice = { wanted: [], readings: 1, unsure: 60, process: SEVEN, totalInk: 2.6, seed: 5 };
const rowsOf = (device: Float64Array): number[][] =>
  Array.from({ length: device.length / 7 }, (_, i) => [...device.subarray(7 * i, 7 * i + 7)]);

describe('a second chart of more than four inks', () => {
  const { device, names } = refinementPatches({ ...choice, extra: EXTRA }, FAR);
  const rows = rowsOf(device);

  it('asks only for what may print together, under the limit', () => {
    expect(names.filter((name) => name === 'least sure')).toHaveLength(60);
    const families = inkFamilies(EXTRA);
    for (const row of rows) {
      const inks = row.flatMap((value, ink) => (value > 0 ? [ink] : []));
      expect(families.some((family) => inks.every((ink) => family.includes(ink)))).toBe(true);
      expect(row.reduce((a, b) => a + b, 0)).toBeLessThan(2.6 + 1e-9 + 7 / 510);
    }
    // Each extra ink is among what is least sure.
    for (const ink of [4, 5, 6])
      expect(rows.filter((row, i) => names[i] === 'least sure' && row[ink] > 0).length).toBeGreaterThan(5);
  });

  it('has the patches that tie it to the first sheet: papers, overprints, extra inks over their neighbours', () => {
    expect(names).toHaveLength(tiePatches(SEVEN) + 60);
    expect(tiePatches(SEVEN)).toBe(6 + 15 + 9);
    expect(names.filter((name) => name === 'paper')).toHaveLength(6);
    const full = (row: readonly number[]) => row.flatMap((value, ink) => (value === 1 ? [ink] : [])).join();
    const ties = rows.filter((_, i) => names[i] === 'overprint').map(full);
    for (const { ink, between } of EXTRA.inks)
      for (const inks of [[ink], ...between.map((other) => [ink, other])])
        expect(ties).toContain([...inks].sort((a, b) => a - b).join());
  });

  it('is refused without the places of its inks, which the measured colours give', () => {
    expect(() => refinementPatches(choice, FAR)).toThrow('CMYKOGV without the places of its inks');
    const lab = (values: ArrayLike<number>, out: Float64Array): void => out.set(genericLab(SEVEN, values));
    const placed = placeInksByModel(SEVEN, lab, 1);
    expect('extra' in placed && inkFamilies(placed.extra)).toEqual(inkFamilies(EXTRA));
    // Hues are those over the paper: its own tint moves no ink.
    const tinted = placeInksByModel(
      SEVEN,
      (values, out) => {
        lab(values, out);
        out[2] += 25;
      },
      1,
    );
    expect(tinted).toEqual(placed);
    // Green that turned out as cyan has no place.
    const wrong = (values: ArrayLike<number>, out: Float64Array): void =>
      lab(
        Array.from(values, (value, ink) => (ink === 0 ? Math.max(value, values[5]) : ink === 5 ? 0 : value)),
        out,
      );
    const none = placeInksByModel(SEVEN, wrong, 1);
    expect('issue' in none && none.issue).toContain('G has the hue of C');
  });
});
