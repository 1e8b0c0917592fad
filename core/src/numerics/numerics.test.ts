import { describe, expect, it } from 'vitest';
import { dotAt, solveLower } from './dot.ts';
import { choleskyFactor, choleskySolve, solvePositiveDefinite } from './cholesky.ts';
import { invertMatrix3, multiplyMatrix3 } from './matrix3.ts';
import { createRandom, seedFrom, shuffle } from './random.ts';
import { correlation, median, percentile, summariseErrors } from './statistics.ts';
import { solve3 } from './solve3.ts';
import { factorTridiagonal, solveTridiagonal, tridiagonalise } from './tridiagonalise.ts';

function spd(n: number, seed: number): Float64Array {
  const random = createRandom(seed);
  const b = Float64Array.from({ length: n * n }, () => random.normal());
  const a = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      for (let k = 0; k < n; k++) a[i * n + j] += b[i * n + k] * b[j * n + k];
      if (i === j) a[i * n + j] += 0.5;
    }
  return a;
}

const times = (a: Float64Array, x: Float64Array, n: number): Float64Array =>
  Float64Array.from({ length: n }, (_, i) => x.reduce((sum, value, j) => sum + a[i * n + j] * value, 0));

describe('linear systems', () => {
  it.each([1, 2, 5, 37, 64, 65, 131])('are solved by Cholesky, order %i', (n) => {
    const a = spd(n, n);
    const x = Float64Array.from({ length: n }, (_, i) => Math.sin(i + 1));
    solvePositiveDefinite(a, n, times(a, x, n)).forEach((value, i) => expect(value).toBeCloseTo(x[i], 7));
  });

  it.each([0, 1, 3, 4, 5, 8, 11])('have inner products of %i terms, from any place', (count) => {
    const a = Float64Array.from({ length: 16 }, (_, i) => i + 1);
    const b = Float64Array.from({ length: 16 }, (_, i) => (i % 3) - 0.5);
    let sum = 0;
    for (let k = 0; k < count; k++) sum += a[2 + k] * b[3 + k];
    expect(dotAt(a, 2, b, 3, count)).toBeCloseTo(sum, 12);
  });

  it('are solved downwards', () => {
    const x = Float64Array.of(2, 3 * 2 + 4 * 5, -2 + 6 * 5 + 0.5 * 7);
    solveLower(Float64Array.of(1, 9, 9, 3, 4, 9, -1, 6, 0.5), 3, x);
    expect([...x]).toEqual([2, 5, 7]);
  });

  it('reports a matrix that is not positive definite', () => {
    expect(choleskyFactor(Float64Array.of(1, 2, 2, 1), 2)).toBe(false);
    expect(() => solvePositiveDefinite(Float64Array.of(0), 1, Float64Array.of(1))).toThrow();
  });

  it('are brought to tridiagonal form and solved for any shift', () => {
    const n = 40;
    const a = spd(n, 3);
    const t = tridiagonalise(a.slice(), n);
    // Qᵀ·A·Q is tridiagonal with the entries told.
    for (let j = 0; j < n; j++) {
      const column = Float64Array.from({ length: n }, (_, i) => t.q[i * n + j]);
      const image = times(a, column, n);
      for (let k = 0; k < n; k++) {
        let entry = 0;
        for (let i = 0; i < n; i++) entry += t.q[i * n + k] * image[i];
        const expected = k === j ? t.diagonal[j] : Math.abs(k - j) === 1 ? t.offDiagonal[Math.min(j, k)] : 0;
        expect(Math.abs(entry - expected)).toBeLessThan(1e-8);
      }
    }
    const shifted = a.slice();
    for (let i = 0; i < n; i++) shifted[i * n + i] += 2.5;
    const b = Float64Array.from({ length: n }, (_, i) => 1 / (i + 1));
    const direct = solvePositiveDefinite(shifted, n, b);
    const rotated = new Float64Array(n);
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) rotated[j] += t.q[i * n + j] * b[i];
    solveTridiagonal(factorTridiagonal(t, 2.5), rotated);
    direct.forEach((value, i) => {
      let sum = 0;
      for (let j = 0; j < n; j++) sum += t.q[i * n + j] * rotated[j];
      expect(sum).toBeCloseTo(value, 8);
    });
    expect(() => factorTridiagonal(t, -1e6)).toThrow();
  });

  it('of three unknowns are solved or said to be singular', () => {
    const out = new Float64Array(3);
    expect(solve3(Float64Array.of(2, 0, 1, 0, 3, 0, 1, 0, 4), Float64Array.of(5, 6, 13), out)).toBe(true);
    expect([...out].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([1, 2, 3]);
    expect(solve3(Float64Array.of(1, 2, 3, 2, 4, 6, 0, 0, 1), Float64Array.of(1, 2, 3), out)).toBe(false);
    const m = [2, 1, 0, 0, 3, 1, 1, 0, 1] as const;
    multiplyMatrix3(m, invertMatrix3(m)).forEach((v, i) => expect(v).toBeCloseTo(i % 4 === 0 ? 1 : 0, 12));
    const l = spd(4, 8);
    choleskyFactor(l, 4);
    const b = Float64Array.of(1, 2, 3, 4);
    choleskySolve(l, 4, b);
    times(spd(4, 8), b, 4).forEach((v, i) => expect(v).toBeCloseTo(i + 1, 9));
  });
});

describe('statistics and chance', () => {
  it('interpolates percentiles between order statistics', () => {
    expect(percentile([4, 1, 3, 2], 50)).toBe(2.5);
    expect(percentile([10, 20], 95)).toBeCloseTo(19.5, 12);
    expect(median([5])).toBe(5);
    expect(percentile([], 50)).toBeNaN();
    expect(summariseErrors([1, 2, 3])).toMatchObject({ count: 3, mean: 2, median: 2, largest: 3 });
  });

  it('correlates', () => {
    expect(correlation([1, 2, 3], [2, 4, 6])).toBeCloseTo(1, 12);
    expect(correlation([1, 2, 3], [3, 2, 1])).toBeCloseTo(-1, 12);
    expect(correlation([1, 1], [1, 2])).toBe(0);
    expect(() => correlation([1], [1, 2])).toThrow(RangeError);
  });

  it('gives the same numbers for the same seed, with the right moments', () => {
    const a = createRandom(seedFrom('wren', 1));
    const b = createRandom(seedFrom('wren', 1));
    const values = Array.from({ length: 20000 }, () => a.normal());
    expect(values.slice(0, 5)).toEqual(Array.from({ length: 5 }, () => b.normal()));
    const mean = values.reduce((s, v) => s + v, 0) / values.length;
    const variance = values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length;
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(Math.abs(variance - 1)).toBeLessThan(0.04);
    expect(shuffle([1, 2, 3, 4, 5, 6], createRandom(1)).sort()).toEqual([1, 2, 3, 4, 5, 6]);
    expect(seedFrom('a', 'b')).not.toBe(seedFrom('ab'));
  });
});
