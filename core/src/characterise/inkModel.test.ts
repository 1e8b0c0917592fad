import { describe, expect, it } from 'vitest';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzRowsToLab } from '../colour/xyzToLab.ts';
import { createRandom } from '../numerics/random.ts';
import { percentile } from '../numerics/statistics.ts';
import { fitInks, inkModelLab } from './inkModel.ts';

const TAKES = [
  [0.9, 0.3, 0.1],
  [0.15, 0.92, 0.3],
  [0.03, 0.1, 0.9],
  [0.96, 0.96, 0.96],
];
const TO_XYZ = [
  [43.6, 38.5, 14.3],
  [22.2, 71.7, 6.1],
  [1.4, 9.7, 71.4],
];
const { device } = makeCmykChart(400, 2, 3);

/** A device of four filters behind tone curves, whose surface throws back a share of the light of full layers. */
function printed(cmyk: ArrayLike<number>, area: (value: number) => number, veil: (value: number) => number) {
  const xyz = new Float64Array((cmyk.length / 4) * 3);
  for (let row = 0; row * 4 < cmyk.length; row++) {
    const inks = [0, 1, 2, 3].map((ink) => cmyk[4 * row + ink]);
    const white = Math.min(0.5, veil(inks[0]) + veil(inks[1]) + veil(inks[2]));
    const light = [0, 1, 2].map((band) => {
      const root = TAKES.reduce((rest, takes, ink) => rest * (1 - takes[band] * area(inks[ink])), 1);
      return (1 - white) * root ** 1.7 + 0.18 * white;
    });
    TO_XYZ.forEach((w, axis) => {
      xyz[3 * row + axis] = w[0] * light[0] + w[1] * light[1] + w[2] * light[2];
    });
  }
  return xyz;
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
