import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { fitInParts, fitLargeSpline } from './fitLargeSpline.ts';
import { fitSpline } from './fitSpline.ts';
import { evaluateSpline } from './radialSpline.ts';
import type { SplineData } from './projectedKernel.ts';
import { rgbModelParts } from './rgbModel.ts';

const random = createRandom(2);
const ROWS = 240;
const truth = (x: number, y: number): number => Math.sin(3 * x) + 0.5 * x * y * y;
const centres = Float64Array.from({ length: 2 * ROWS }, (_, i) =>
  i < 8 ? [0, 0, 0, 1, 1, 0, 1, 1][i] : random.uniform(),
);
const data: SplineData = {
  inputs: 2,
  outputs: 1,
  centres,
  targets: Float64Array.from(
    { length: ROWS },
    (_, i) => truth(centres[2 * i], centres[2 * i + 1]) + 0.01 * (random.uniform() - 0.5),
  ),
  counts: new Float64Array(ROWS).fill(1),
};
const at = Float64Array.from({ length: 400 }, () => random.uniform());

function errorOf(blockRows?: number): number {
  const out = new Float64Array(200);
  evaluateSpline(fitLargeSpline(data, 1e-4, blockRows), at, out);
  return out.reduce((sum, value, i) => sum + Math.abs(value - truth(at[2 * i], at[2 * i + 1])), 0) / 200;
}

describe('a spline over many rows', () => {
  it('is the plain one where they are few', () => {
    const [a, b] = [fitLargeSpline(data, 1e-4), fitSpline(data, 1e-4)];
    expect([...a.alpha]).toEqual([...b.alpha]);
  });

  it('is cut into as many parts as are asked for', () => {
    expect([...fitInParts(data, 1e-4, 1).alpha]).toEqual([...fitSpline(data, 1e-4).alpha]);
    expect([...fitInParts(data, 1e-4, 3).alpha]).toEqual([...fitLargeSpline(data, 1e-4, 100).alpha]);
  });

  it.each([
    [2700, 1],
    [2701, 2],
    [3200, 2],
    [3201, 3],
  ])('for an RGB model of %i patches has %i parts', (rows, parts) => {
    expect(rgbModelParts(rows)).toBe(parts);
  });

  it('in parts is nearly as good as whole, with all rows in it', () => {
    expect(errorOf(100)).toBeLessThan(2 * errorOf());
    // Four corners are in each of three parts.
    expect(fitLargeSpline(data, 1e-4, 100).centres.length / 2).toBe(ROWS + 2 * 4);
  });
});
