import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createRandom } from './random.ts';
import { solveDense } from './solveDense.ts';

describe('dense systems', () => {
  it('give back what they were made of, pivots of nought included', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 4 }),
        fc.nat(),
        (size, columns, seed) => {
          const random = createRandom(seed);
          const matrix = Float64Array.from({ length: size * size }, () => random.normal());
          // The first pivot is nought, so that rows have to change places.
          if (size > 1) matrix[0] = 0;
          const truth = Float64Array.from({ length: size * columns }, () => random.normal());
          const right = new Float64Array(size * columns);
          for (let row = 0; row < size; row++)
            for (let column = 0; column < columns; column++)
              for (let k = 0; k < size; k++)
                right[row * columns + column] += matrix[row * size + k] * truth[k * columns + column];
          const solved = solveDense(matrix.slice(), right.slice(), size, columns);
          // What it solves is met, however ill the matrix is.
          for (let row = 0; row < size; row++)
            for (let column = 0; column < columns; column++) {
              let sum = 0;
              let scale = 1;
              for (let k = 0; k < size; k++) {
                const part = matrix[row * size + k] * solved[k * columns + column];
                sum += part;
                scale += Math.abs(part);
              }
              expect(Math.abs(sum - right[row * columns + column]) / scale).toBeLessThan(1e-9);
            }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('refuse a singular matrix', () => {
    expect(() => solveDense(Float64Array.of(1, 2, 2, 4), Float64Array.of(1, 2), 2, 1)).toThrow(RangeError);
  });
});
