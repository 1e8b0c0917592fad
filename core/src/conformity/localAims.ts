import { fitSpaceToXyz, xyzToFitSpace } from '../characterise/fitSpace.ts';
import { solveDense } from '../numerics/solveDense.ts';

/** Neighbours that a value is interpolated from. */
const NEIGHBOURS = 40;
/** Constant and four slopes. */
const TREND = 5;

/**
 * Colours of CMYK values that a characterisation does not have, from its nearest patches: a linear trend and radial
 * functions r³ through them, in the space of the Lab function. Values far from all patches follow the trend.
 * @param device known patches without repeats, row-major × 4, 0..1; `xyz` their colours, Y = 100.
 * @param wanted row-major × 4.
 * @returns XYZ, row-major × 3.
 */
export function localAims(device: Float64Array, xyz: Float64Array, wanted: Float64Array): Float64Array {
  const known = device.length / 4;
  const fit = new Float64Array(xyz.length);
  xyzToFitSpace(xyz, fit);
  const out = new Float64Array((wanted.length / 4) * 3);
  const squares = new Float64Array(known);
  const sorted = new Float64Array(known);
  const count = Math.min(NEIGHBOURS, known);
  for (let i = 0; i < wanted.length / 4; i++) {
    for (let row = 0; row < known; row++) squares[row] = squareApart(device, row, wanted, i);
    interpolate(device, fit, nearest(squares, sorted, count), wanted, i, out);
  }
  fitSpaceToXyz(out, out);
  return out;
}

function squareApart(a: Float64Array, rowA: number, b: Float64Array, rowB: number): number {
  const [i, j] = [4 * rowA, 4 * rowB];
  const c = a[i] - b[j];
  const m = a[i + 1] - b[j + 1];
  const y = a[i + 2] - b[j + 2];
  const k = a[i + 3] - b[j + 3];
  return c * c + m * m + y * y + k * k;
}

/** Rows of the least squares of distance; typed arrays sort by number many times faster than rows by a function. */
function nearest(squares: Float64Array, sorted: Float64Array, count: number): number[] {
  sorted.set(squares);
  const within = sorted.sort()[count - 1];
  const rows: number[] = [];
  for (let row = 0; row < squares.length && rows.length < count; row++)
    if (squares[row] < within) rows.push(row);
  for (let row = 0; row < squares.length && rows.length < count; row++)
    if (squares[row] === within) rows.push(row);
  return rows;
}

/** Distance cubed, from its square. */
function cubed(square: number): number {
  return square * Math.sqrt(square);
}

function interpolate(
  device: Float64Array,
  fit: Float64Array,
  near: readonly number[],
  wanted: Float64Array,
  at: number,
  out: Float64Array,
): void {
  const count = near.length;
  const size = count + TREND;
  const matrix = new Float64Array(size * size);
  const right = new Float64Array(size * 3);
  for (let i = 0; i < count; i++) {
    for (let j = 0; j < i; j++) {
      const value = cubed(squareApart(device, near[j], device, near[i]));
      matrix[i * size + j] = value;
      matrix[j * size + i] = value;
    }
    for (let term = 0; term < TREND; term++) {
      const value = term === 0 ? 1 : device[4 * near[i] + term - 1];
      matrix[i * size + count + term] = value;
      matrix[(count + term) * size + i] = value;
    }
    for (let axis = 0; axis < 3; axis++) right[3 * i + axis] = fit[3 * near[i] + axis];
  }
  // A trend that the neighbours do not determine is left out.
  for (let term = 0; term < TREND; term++) matrix[(count + term) * (size + 1)] = -1e-9;
  const weights = solveDense(matrix, right, size, 3);
  for (let i = 0; i < count; i++) {
    const value = cubed(squareApart(device, near[i], wanted, at));
    for (let axis = 0; axis < 3; axis++) out[3 * at + axis] += weights[3 * i + axis] * value;
  }
  for (let term = 0; term < TREND; term++)
    for (let axis = 0; axis < 3; axis++)
      out[3 * at + axis] += weights[3 * (count + term) + axis] * (term === 0 ? 1 : wanted[4 * at + term - 1]);
}
