import { gatherRows } from '../numerics/gatherRows.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { factorTridiagonal, solveTridiagonal, tridiagonalise } from '../numerics/tridiagonalise.ts';
import { ProjectedKernel } from './projectedKernel.ts';
import type { SplineData } from './projectedKernel.ts';

/** Rows that the choice is made on: the best factor hardly depends on their number, and the optimum is flat. */
const SELECTION_ROWS = 400;
/** Factors tried, relative to the size of the kernel: 1e-10 to 1e-2 in half decades. */
const RELATIVE = Array.from({ length: 17 }, (_, i) => 10 ** (-10 + i / 2));

/** A smoothing factor, in the units of the kernel, with the mean absolute leave-one-out residual that it leaves. */
export interface ChosenSmoothing {
  readonly smoothing: number;
  readonly residual: number;
}

/**
 * The smoothing factor with the least mean absolute leave-one-out residual on a random part of the rows, among `factors`
 * (relative to the size of the kernel). The projected kernel is brought to tridiagonal form once; each factor then costs
 * O(n²).
 */
export function chooseSmoothing(
  data: SplineData,
  seed: number,
  factors: readonly number[] = RELATIVE,
): number {
  return chooseSmoothings(data, data.outputs, seed, factors)[0].smoothing;
}

/** The same for several problems on the same rows, whose targets stand beside each other, `width` columns each. */
export function chooseSmoothings(
  data: SplineData,
  width: number,
  seed: number,
  factors: readonly number[],
): ChosenSmoothing[] {
  const kernel = new ProjectedKernel(subset(data, SELECTION_ROWS, seed));
  const { free, count } = kernel;
  const tridiagonal = tridiagonalise(kernel.block, free);
  const { diagonal, offDiagonal, q } = tridiagonal;
  let size = 0;
  for (let i = 0; i < free; i++)
    size = Math.max(
      size,
      Math.abs(diagonal[i]) + Math.abs(offDiagonal[i - 1] ?? 0) + Math.abs(offDiagonal[i] ?? 0),
    );
  const columns = Array.from({ length: data.outputs }, (_, output) =>
    rotate(q, kernel.projectedTargets(output)),
  );
  const basis = rowsOfBasis(kernel, q);
  const best = Array.from({ length: data.outputs / width }, () => ({ smoothing: 0, residual: Infinity }));
  for (const relative of factors) {
    const smoothing = relative * size;
    const factor = factorTridiagonal(tridiagonal, smoothing);
    const solved = columns.map((column) => {
      const copy = column.slice();
      solveTridiagonal(factor, copy);
      return copy;
    });
    const scores = new Float64Array(best.length);
    const row = new Float64Array(free);
    for (let i = 0; i < count; i++) {
      const b = basis.subarray(i * free, (i + 1) * free);
      row.set(b);
      solveTridiagonal(factor, row);
      const influence = dot(b, row);
      solved.forEach((column, output) => {
        scores[Math.floor(output / width)] += Math.abs(dot(b, column) / influence) / (count * width);
      });
    }
    scores.forEach((residual, problem) => {
      if (residual < best[problem].residual) best[problem] = { smoothing, residual };
    });
  }
  return best;
}

function subset(data: SplineData, most: number, seed: number): SplineData {
  const n = data.counts.length;
  if (n <= most) return data;
  const rows = shuffle(
    Array.from({ length: n }, (_, i) => i),
    createRandom(seed),
  ).slice(0, most);
  return takeRows(data, rows);
}

/** The same problem on some of its rows. */
export function takeRows(data: SplineData, rows: readonly number[]): SplineData {
  return {
    ...data,
    centres: gatherRows(data.centres, rows, data.inputs),
    targets: gatherRows(data.targets, rows, data.outputs),
    counts: gatherRows(data.counts, rows, 1),
  };
}

/** Qᵀ·x. */
function rotate(q: Float64Array, x: Float64Array): Float64Array {
  const n = x.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) out[j] += q[i * n + j] * x[i];
  return out;
}

/** Row-major count × free: each row's coordinates in the basis where the kernel is tridiagonal. */
function rowsOfBasis(kernel: ProjectedKernel, q: Float64Array): Float64Array {
  const { count, free } = kernel;
  const basis = new Float64Array(count * free);
  const column = new Float64Array(free);
  for (let j = 0; j < free; j++) {
    for (let i = 0; i < free; i++) column[i] = q[i * free + j];
    kernel.unproject(column).forEach((value, i) => (basis[i * free + j] = value));
  }
  return basis;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}
