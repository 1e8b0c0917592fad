import { describe, expect, it } from 'vitest';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzRowsToLab } from '../colour/xyzToLab.ts';
import { createRandom } from '../numerics/random.ts';
import { percentile } from '../numerics/statistics.ts';
import { fitInks, inkModelLab } from './inkModel.ts';
import { filterDevice } from './testing/filterDevice.ts';

const { device } = makeCmykChart(400, 2, 3);

/** A device of filters whose surface throws back a share of the light of full layers. */
function printed(
  cmyk: ArrayLike<number>,
  area: (value: number) => number,
  veil: (value: number) => number,
): Float64Array {
  return filterDevice(cmyk, area, (light, [c, m, y]) => {
    const white = Math.min(0.5, veil(c) + veil(m) + veil(y));
    return (1 - white) * light ** 1.7 + 0.18 * white;
  });
}

/** A reading: every colour off by some tenths. */
function read(xyz: Float64Array): Float64Array {
  const random = createRandom(12);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  for (let at = 0; at < xyz.length; at += 3) {
    const [l, a, b] = [0, 1, 2].map((axis) => lab[at + axis] + 0.15 * random.normal());
    lab.set(labToXyz([l, a, b], WHITE_D50_MEASURED), at);
  }
  return lab;
}

const even = (value: number): number => value + 0.5 * value * (1 - value);
const fullEarly = (value: number): number => Math.min(1, value + 1.3 * value * (1 - value));
const none = (): number => 0;
const turning = (value: number): number => 0.09 * Math.max(0, (value - 0.8) / 0.2) ** 1.5;

describe('tone curves of an ink model', () => {
  it.each([
    ['are not stiff where inks are even', even, none, [7, 11], 0.5],
    ['are free where inks are full early', fullEarly, none, [11], 0.9],
    ['are stiff where inks turn back', even, turning, [5], 2.5],
  ] as const)('%s', (_, area, veil, bends, most) => {
    const model = fitInks(device, 4, read(printed(device, area, veil)));
    expect(bends).toContain(model.freedom.bends);
    const random = createRandom(71);
    const probes = Float64Array.from({ length: 4 * 2000 }, () => 0.75 * random.uniform());
    const found = new Float64Array(3 * 2000);
    inkModelLab(model, probes, found);
    const expected = printed(probes, area, veil);
    xyzRowsToLab(expected, WHITE_D50_MEASURED, expected);
    expect(percentile(deltaE2000Rows(expected, found), 95)).toBeLessThan(most);
  });
});
