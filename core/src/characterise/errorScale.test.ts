import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { mergeRepeats } from './mergeRepeats.ts';
import { ErrorScale } from './errorScale.ts';
import { PhysicsLeverage } from './physicsLeverage.ts';

const ROWS = 600;

/** Device values of one channel whose lightness falls with it, and squared errors whose size grows with it. */
function growing(seed: number, change: (squares: Float64Array) => void = () => {}): ErrorScale {
  const random = createRandom(seed);
  const device = Float64Array.from({ length: ROWS }, () => random.uniform());
  const lab = Float64Array.from({ length: 3 * ROWS }, (_, i) => (i % 3 === 0 ? 100 - 80 * device[i / 3] : 0));
  const squares = Float64Array.from(device, (value) => {
    const size = 0.2 * Math.exp(1.5 * value);
    return (size * size * [0, 1, 2].reduce((sum) => sum + random.normal() ** 2, 0)) / 3;
  });
  change(squares);
  return new ErrorScale(1, device, lab, squares);
}

const sizeAt = (scale: ErrorScale, value: number): number => scale.at([value], [100 - 80 * value, 0, 0]);

describe('the size of errors by place', () => {
  it.each([1, 2, 3])('is found from errors of three normal parts, seed %i', (seed) => {
    const scale = growing(seed);
    for (const value of [0.1, 0.5, 0.9]) {
      expect(sizeAt(scale, value)).toBeGreaterThan(0.85 * 0.2 * Math.exp(1.5 * value));
      expect(sizeAt(scale, value)).toBeLessThan(1.15 * 0.2 * Math.exp(1.5 * value));
    }
  });

  it('grows no further than where it was learned', () => {
    const scale = growing(4);
    expect(sizeAt(scale, 30)).toBeLessThan(1.2 * sizeAt(scale, 1));
    expect(sizeAt(scale, -30)).toBeGreaterThan(0.8 * sizeAt(scale, 0));
  });

  it('is hardly moved by one wrong patch', () => {
    const wrong = growing(1, (squares) => {
      squares[7] = 900;
    });
    for (const value of [0.1, 0.5, 0.9])
      expect(sizeAt(wrong, value) / sizeAt(growing(1), value)).toBeLessThan(1.1);
  });

  it('is small, not NaN, where there are no errors at all', () => {
    const none = growing(1, (squares) => squares.fill(0));
    expect(sizeAt(none, 0.5)).toBeGreaterThanOrEqual(0);
    expect(sizeAt(none, 0.5)).toBeLessThan(1e-3);
  });
});

describe('the leverage of mixing physics', () => {
  const leverageOf = (patches: number): PhysicsLeverage => {
    const { device } = makeCmykChart(patches, 1, 3);
    const merged = mergeRepeats(device, 4, new Float64Array((device.length / 4) * 3));
    return new PhysicsLeverage({ inks: 4, freedom: { bends: 7, penalty: 0 }, patches: merged });
  };

  it('adds up to its unknowns over the readings', () => {
    const { device } = makeCmykChart(400, 1, 3);
    const leverage = leverageOf(400);
    let sum = 0;
    for (let row = 0; row < device.length / 4; row++)
      sum += leverage.at(device.subarray(4 * row, 4 * row + 4));
    // Sixteen overprints and seven bends of each of four inks; not all can be told apart from the rest.
    expect(sum).toBeGreaterThan(38);
    expect(sum).toBeLessThanOrEqual(44);
  });

  it('halves with twice the patches, and is larger at a corner that was not printed', () => {
    const [few, many] = [leverageOf(400), leverageOf(800)];
    const inside = [0.3, 0.4, 0.2, 0.1];
    expect(few.at(inside) / many.at(inside)).toBeGreaterThan(1.5);
    expect(few.at(inside) / many.at(inside)).toBeLessThan(2.5);
    expect(many.at([1, 1, 1, 1])).toBeGreaterThan(3 * many.at(inside));
  });
});
