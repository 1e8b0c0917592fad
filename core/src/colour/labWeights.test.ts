import { describe, expect, it } from 'vitest';
import { labWeights } from './labWeights.ts';

const weights = (l: number, a: number, b: number, hueWeight = 1): Float64Array => {
  const out = new Float64Array(9);
  labWeights(l, a, b, hueWeight, out);
  return out;
};
/** Length of a small difference under the weights. */
const weighed = (w: Float64Array, d: readonly number[]): number =>
  Math.hypot(...[0, 1, 2].map((row) => d.reduce((sum, value, i) => sum + w[3 * row + i] * value, 0)));

describe('weights of a difference at a colour', () => {
  it('are one in all directions at the middle grey', () => {
    const grey = weights(50, 0, 0);
    for (const d of [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
      [0, 0.6, 0.8],
    ])
      expect(weighed(grey, d)).toBeCloseTo(1, 12);
  });

  it('are those of ΔE00 and ΔE94 for lightness, chroma and hue', () => {
    // ΔE00: S_L = 1 + 0.015·30² / √(20 + 30²); ΔE94: S_C = 1 + 0.045·50, S_H = 1 + 0.015·50.
    const w = weights(80, 30, 40);
    expect(weighed(w, [1, 0, 0])).toBeCloseTo(1 / (1 + (0.015 * 900) / Math.sqrt(920)), 12);
    expect(weighed(w, [0, 0.6, 0.8])).toBeCloseTo(1 / 3.25, 12);
    expect(weighed(w, [0, -0.8, 0.6])).toBeCloseTo(1 / 1.75, 12);
  });

  it('hold hue the heavier the more chroma there is, up to C* 15', () => {
    const hue = (chroma: number): number =>
      weighed(weights(50, chroma, 0, 3), [0, 0, 1]) * (1 + 0.015 * chroma);
    expect([0, 7.5, 15, 60].map(hue)).toEqual([1, 2, 3, 3].map((value) => expect.closeTo(value, 12)));
  });
});
