import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { SplineUncertainty } from './splineUncertainty.ts';
import type { SplineData } from './projectedKernel.ts';

const random = createRandom(11);
const ROWS = 24;
const data: SplineData = {
  inputs: 2,
  outputs: 1,
  centres: Float64Array.from({ length: 2 * ROWS }, () => random.uniform()),
  targets: Float64Array.from({ length: ROWS }, () => random.uniform()),
  counts: Float64Array.from({ length: ROWS }, (_, i) => 1 + (i % 3)),
};
const SMOOTHING = 0.02;

const cubed = (a: ArrayLike<number>, b: ArrayLike<number>): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1]) ** 3;
const centre = (i: number): number[] => [data.centres[2 * i], data.centres[2 * i + 1]];

/** Universal kriging by one dense system, with partial pivoting: the textbook form. */
function kriging(a: readonly number[], b: readonly number[]): number {
  const size = ROWS + 3;
  const plane = (x: readonly number[]): number[] => [1, ...x];
  const system = Array.from({ length: size }, (_, i) =>
    Array.from({ length: size + 1 }, (_, j) => {
      if (j === size) return i < ROWS ? cubed(centre(i), b) : plane(b)[i - ROWS];
      if (i < ROWS && j < ROWS)
        return cubed(centre(i), centre(j)) + (i === j ? SMOOTHING / data.counts[i] : 0);
      if (i >= ROWS && j >= ROWS) return 0;
      return plane(centre(Math.min(i, j)))[Math.max(i, j) - ROWS];
    }),
  );
  for (let c = 0; c < size; c++) {
    let pivot = c;
    for (let r = c; r < size; r++) if (Math.abs(system[r][c]) > Math.abs(system[pivot][c])) pivot = r;
    [system[c], system[pivot]] = [system[pivot], system[c]];
    for (let r = 0; r < size; r++) {
      if (r === c) continue;
      const factor = system[r][c] / system[c][c];
      for (let k = c; k <= size; k++) system[r][k] -= factor * system[c][k];
    }
  }
  const left = [...Array.from({ length: ROWS }, (_, i) => cubed(centre(i), a)), ...plane(a)];
  return cubed(a, b) - left.reduce((sum, value, i) => sum + (value * system[i][size]) / system[i][i], 0);
}

describe('uncertainty of a spline', () => {
  const uncertainty = new SplineUncertainty(data, SMOOTHING);

  it('is that of universal kriging, at points and between them', () => {
    const probe = createRandom(5);
    for (let i = 0; i < 40; i++) {
      const [a, b] = [0, 1].map(() => [1.4 * probe.uniform() - 0.2, 1.4 * probe.uniform() - 0.2]);
      const [pa, pb] = [uncertainty.at(a), uncertainty.at(b)];
      expect(pa.variance).toBeCloseTo(kriging(a, a), 8);
      expect(uncertainty.covariance(pa, pb)).toBeCloseTo(kriging(a, b), 8);
      expect(uncertainty.covariance(pb, pa)).toBeCloseTo(kriging(a, b), 8);
    }
  });

  it('grows away from the data and is below the noise of a reading at a patch that was read', () => {
    const at = uncertainty.at(centre(0));
    expect(at.variance).toBeLessThan(SMOOTHING / data.counts[0]);
    expect(uncertainty.at([2, 2]).variance).toBeGreaterThan(20 * at.variance);
  });

  it('falls when a point is read, by what its covariance says', () => {
    const [x, y] = [
      [0.31, 0.77],
      [0.4, 0.7],
    ];
    const [px, py] = [uncertainty.at(x), uncertainty.at(y)];
    const more = new SplineUncertainty(
      {
        ...data,
        centres: Float64Array.of(...data.centres, ...x),
        targets: Float64Array.of(...data.targets, 0),
        counts: Float64Array.of(...data.counts, 1),
      },
      SMOOTHING,
    );
    const expected = py.variance - uncertainty.covariance(px, py) ** 2 / (px.variance + SMOOTHING);
    expect(more.at(y).variance).toBeCloseTo(expected, 8);
    expect(more.at(y).variance).toBeLessThan(0.9 * py.variance);
  });
});
