/**
 * Solves A·X = B by Gaussian elimination with partial pivoting.
 * @param matrix row-major size × size; destroyed.
 * @param right row-major size × columns; becomes the solution.
 * @throws RangeError where the matrix is singular.
 */
export function solveDense(
  matrix: Float64Array,
  right: Float64Array,
  size: number,
  columns: number,
): Float64Array {
  for (let step = 0; step < size; step++) {
    let pivot = step;
    for (let row = step + 1; row < size; row++)
      if (Math.abs(matrix[row * size + step]) > Math.abs(matrix[pivot * size + step])) pivot = row;
    if (matrix[pivot * size + step] === 0) throw new RangeError(`singular matrix of ${size} at ${step}`);
    swapRows(matrix, size, step, pivot);
    swapRows(right, columns, step, pivot);
    const from = step * size;
    for (let row = step + 1; row < size; row++) {
      const to = row * size;
      const factor = matrix[to + step] / matrix[from + step];
      if (factor === 0) continue;
      for (let k = step; k < size; k++) matrix[to + k] -= factor * matrix[from + k];
      for (let k = 0; k < columns; k++) right[row * columns + k] -= factor * right[step * columns + k];
    }
  }
  for (let row = size - 1; row >= 0; row--)
    for (let k = 0; k < columns; k++) {
      let value = right[row * columns + k];
      for (let j = row + 1; j < size; j++) value -= matrix[row * size + j] * right[j * columns + k];
      right[row * columns + k] = value / matrix[row * size + row];
    }
  return right;
}

function swapRows(values: Float64Array, width: number, a: number, b: number): void {
  if (a === b) return;
  for (let k = 0; k < width; k++) {
    const kept = values[a * width + k];
    values[a * width + k] = values[b * width + k];
    values[b * width + k] = kept;
  }
}
