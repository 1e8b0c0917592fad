import { describe, expect, it } from 'vitest';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { fitInks } from '../characterise/inkModel.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { separationOf } from './separation.ts';
import { separationCost } from './separationCost.ts';
import { previewGrid } from './separationPreview.ts';

const { device } = makeCmykChart(200, 1, 3);
const xyz = Float64Array.from(
  Array.from({ length: device.length / 4 }, (_, i) => [
    ...labToXyz(genericPressLab([...device.subarray(4 * i, 4 * i + 4)]), WHITE_D50_MEASURED),
  ]).flat(),
);
const grid = previewGrid(fitInks(device, 4, xyz));
const greys = Float64Array.of(40, 0, 0, 60, 0, 0, 95, 0, 0);
const shares = Float64Array.of(0.25, 0.25, 0.5);
const cost = (black: Parameters<typeof separationOf>[0], variation = 0.02) =>
  separationCost(grid, separationOf(black, 3), greys, shares, variation);
const total = ({ ink }: ReturnType<typeof cost>): number => ink.reduce((a, b) => a + b, 0);

describe('what a separation costs', () => {
  it('is less ink, and steadier greys, the more black it takes', () => {
    const order = (['light', 'medium', 'heavy', 'max'] as const).map((black) => cost(black));
    for (let i = 1; i < order.length; i++) {
      expect(total(order[i])).toBeLessThan(total(order[i - 1]));
      expect(order[i].ink[3]).toBeGreaterThan(order[i - 1].ink[3]);
    }
    expect(order[3].greys.mean).toBeLessThan(0.8 * order[0].greys.mean);
    for (const { greys: moved } of order) expect(moved.p95).toBeGreaterThan(moved.mean);
  });

  it('counts colours by their area, and the most ink of any', () => {
    const all = cost('medium');
    const dark = separationCost(grid, separationOf('medium', 3), greys.slice(0, 3), Float64Array.of(1), 0.02);
    expect(all.most).toBeCloseTo(total(dark), 9);
    expect(total(all)).toBeLessThan(0.6 * total(dark));
  });

  it('has greys that move as the inks vary: not at all where they do not', () => {
    expect(cost('medium', 0).greys).toEqual({ mean: 0, p95: 0 });
    const [small, large] = [cost('medium', 0.01), cost('medium', 0.02)];
    expect(large.greys.mean / small.greys.mean).toBeGreaterThan(1.7);
    expect(large.greys.mean / small.greys.mean).toBeLessThan(2.3);
  });
});
