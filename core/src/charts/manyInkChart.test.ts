import { describe, expect, it } from 'vitest';
import { inkProcess } from '../device/process.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import { expectedExtraInks, MANY_INK_CHART_PATCHES, makeManyInkChart } from './manyInkChart.ts';

const SEVEN = expectedExtraInks(inkProcess([...'CMYKOGV']));

describe('a chart of many inks', () => {
  it('has the patches asked for, papers, repeats and every solid, and no ink beside one that it never prints with', () => {
    const { device, names } = makeManyInkChart(800, 4, 7, SEVEN, 3);
    expect(names).toHaveLength(800);
    expect(device).toHaveLength(5600);
    expect(names.filter((name) => name === 'paper').length).toBeGreaterThanOrEqual(6);
    expect(names.filter((name) => name === 'repeat').length).toBeGreaterThanOrEqual(12);
    const families = inkFamilies(SEVEN);
    const solids = new Set<number>();
    for (let row = 0; row < 800; row++) {
      const values = [...device.subarray(7 * row, 7 * row + 7)];
      const present = values.flatMap((value, ink) => (value > 0 ? [ink] : []));
      expect(families.some((family) => present.every((ink) => family.includes(ink)))).toBe(true);
      expect(values.reduce((sum, value) => sum + value, 0)).toBeLessThanOrEqual(3.1 + 1e-9);
      if (present.length === 1 && values[present[0]] === 1) solids.add(present[0]);
      for (const value of values) expect(Number.isInteger(Math.round(value * 255 * 1e6) / 1e6)).toBe(true);
    }
    expect(solids.size).toBe(7);
  });

  it('is the same for a seed and another for the next', () => {
    const [one, again, other] = [5, 5, 6].map((seed) => makeManyInkChart(450, seed, 7, SEVEN, 3).device);
    expect(again).toEqual(one);
    expect(other).not.toEqual(one);
  });

  it('is made of inks whose colour their names tell, each of its own hue', () => {
    expect(() => expectedExtraInks(inkProcess(['C', 'M', 'Y', 'K', 'LC']))).toThrow(
      'colour of LC is not told',
    );
    expect(() => expectedExtraInks(inkProcess([...'CMYKZ']))).toThrow('colour of Z is not told');
    expect(expectedExtraInks(inkProcess([...'CMYKOGVR'])).inks).toHaveLength(4);
  });

  it('has a least and a most', () => {
    const { least, most } = MANY_INK_CHART_PATCHES;
    expect(() => makeManyInkChart(least - 1, 1, 7, SEVEN, 3)).toThrow(`${least} to ${most}`);
    expect(() => makeManyInkChart(most + 1, 1, 7, SEVEN, 3)).toThrow('expected');
    expect(makeManyInkChart(least, 1, 7, SEVEN, 3).names).toHaveLength(least);
  });
});
