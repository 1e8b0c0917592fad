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
  const distance = new Float64Array(known);
  for (let i = 0; i < wanted.length / 4; i++) {
    const at = wanted.subarray(4 * i, 4 * i + 4);
    for (let row = 0; row < known; row++) distance[row] = distanceOf(device, row, at);
    const near = nearest(distance, Math.min(NEIGHBOURS, known));
    out.set(interpolate(device, fit, near, at), 3 * i);
  }
  fitSpaceToXyz(out, out);
  return out;
}

function distanceOf(device: Float64Array, row: number, at: Float64Array): number {
  let sum = 0;
  for (let ink = 0; ink < 4; ink++) sum += (device[4 * row + ink] - at[ink]) ** 2;
  return Math.sqrt(sum);
}

/** Rows of the least distances; typed arrays sort by number many times faster than rows by a function. */
function nearest(distance: Float64Array, count: number): number[] {
  const within = distance.slice().sort()[count - 1];
  const rows: number[] = [];
  for (let row = 0; row < distance.length && rows.length < count; row++)
    if (distance[row] < within) rows.push(row);
  for (let row = 0; row < distance.length && rows.length < count; row++)
    if (distance[row] === within) rows.push(row);
  return rows;
}

function interpolate(
  device: Float64Array,
  fit: Float64Array,
  near: readonly number[],
  at: Float64Array,
): Float64Array {
  const size = near.length + TREND;
  const matrix = new Float64Array(size * size);
  const right = new Float64Array(size * 3);
  near.forEach((row, i) => {
    const own = device.subarray(4 * row, 4 * row + 4);
    for (let j = 0; j < i; j++) {
      const value = distanceOf(device, near[j], own) ** 3;
      matrix[i * size + j] = value;
      matrix[j * size + i] = value;
    }
    for (let term = 0; term < TREND; term++) {
      const value = term === 0 ? 1 : own[term - 1];
      matrix[i * size + near.length + term] = value;
      matrix[(near.length + term) * size + i] = value;
    }
    right.set(fit.subarray(3 * row, 3 * row + 3), 3 * i);
  });
  // A trend that the neighbours do not determine is left out.
  for (let term = 0; term < TREND; term++) matrix[(near.length + term) * (size + 1)] = -1e-9;
  const weights = solveDense(matrix, right, size, 3);
  const out = new Float64Array(3);
  for (let axis = 0; axis < 3; axis++) {
    near.forEach((row, i) => (out[axis] += weights[3 * i + axis] * distanceOf(device, row, at) ** 3));
    for (let term = 0; term < TREND; term++)
      out[axis] += weights[3 * (near.length + term) + axis] * (term === 0 ? 1 : at[term - 1]);
  }
  return out;
}
