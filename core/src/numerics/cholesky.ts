/**
 * In-place Cholesky factorisation A = L·Lᵀ of a symmetric positive definite matrix.
 * @param a row-major n×n; the lower triangle is read and replaced by L, the upper one is left as it is.
 * @returns false where a pivot is not positive (the matrix is not positive definite).
 */
export function choleskyFactor(a: Float64Array, n: number): boolean {
  if (a.length < n * n) throw new RangeError(`matrix of ${a.length} values for n = ${n}`);
  for (let j = 0; j < n; j++) {
    const rowJ = j * n;
    let pivot = a[rowJ + j];
    for (let k = 0; k < j; k++) pivot -= a[rowJ + k] * a[rowJ + k];
    if (!(pivot > 0)) return false;
    const root = Math.sqrt(pivot);
    a[rowJ + j] = root;
    const inverse = 1 / root;
    let i = j + 1;
    // Four rows at a time: the row of the pivot is loaded once for four dot products.
    for (; i + 3 < n; i += 4) {
      const r0 = i * n;
      const r1 = r0 + n;
      const r2 = r1 + n;
      const r3 = r2 + n;
      let s0 = a[r0 + j];
      let s1 = a[r1 + j];
      let s2 = a[r2 + j];
      let s3 = a[r3 + j];
      for (let k = 0; k < j; k++) {
        const x = a[rowJ + k];
        s0 -= a[r0 + k] * x;
        s1 -= a[r1 + k] * x;
        s2 -= a[r2 + k] * x;
        s3 -= a[r3 + k] * x;
      }
      a[r0 + j] = s0 * inverse;
      a[r1 + j] = s1 * inverse;
      a[r2 + j] = s2 * inverse;
      a[r3 + j] = s3 * inverse;
    }
    for (; i < n; i++) {
      const row = i * n;
      let s = a[row + j];
      for (let k = 0; k < j; k++) s -= a[row + k] * a[rowJ + k];
      a[row + j] = s * inverse;
    }
  }
  return true;
}

/** Solves L·Lᵀ·x = b in place for one right side, L as `choleskyFactor` leaves it. */
export function choleskySolve(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let s = b[i];
    const row = i * n;
    for (let k = 0; k < i; k++) s -= l[row + k] * b[k];
    b[i] = s / l[row + i];
  }
  for (let i = n - 1; i >= 0; i--) {
    const x = b[i] / l[i * n + i];
    b[i] = x;
    const row = i * n;
    for (let k = 0; k < i; k++) b[k] -= l[row + k] * x;
  }
}

/**
 * Solves the symmetric positive definite normal equations; a copy of `a` is factored.
 * Throws where the matrix is not positive definite.
 */
export function solvePositiveDefinite(a: Float64Array, n: number, b: Float64Array): Float64Array {
  const factor = a.slice();
  if (!choleskyFactor(factor, n)) throw new Error(`a matrix of order ${n} is not positive definite`);
  const x = b.slice();
  choleskySolve(factor, n, x);
  return x;
}
