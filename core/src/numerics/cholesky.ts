import { solveLower } from './dot.ts';

/** Columns that are eliminated at once; a panel of a row then fits into the first-level cache many times over. */
const PANEL = 64;

/**
 * In-place Cholesky factorisation A = L·Lᵀ of a symmetric positive definite matrix, right-looking in panels.
 * @param a row-major n×n; the lower triangle is read and replaced by L, the upper one is left as it is.
 * @returns false where a pivot is not positive (the matrix is not positive definite).
 */
export function choleskyFactor(a: Float64Array, n: number): boolean {
  if (a.length < n * n) throw new RangeError(`matrix of ${a.length} values for n = ${n}`);
  for (let from = 0; from < n; from += PANEL) {
    const to = Math.min(n, from + PANEL);
    if (!factorPanel(a, n, from, to)) return false;
    updateTrailing(a, n, from, to);
  }
  return true;
}

/** Columns `from`…`to` of L, all updates by earlier panels done. */
function factorPanel(a: Float64Array, n: number, from: number, to: number): boolean {
  for (let j = from; j < to; j++) {
    const rowJ = j * n;
    let pivot = a[rowJ + j];
    for (let k = from; k < j; k++) pivot -= a[rowJ + k] * a[rowJ + k];
    if (!(pivot > 0)) return false;
    a[rowJ + j] = Math.sqrt(pivot);
    const inverse = 1 / a[rowJ + j];
    for (let i = j + 1; i < to; i++) {
      const row = i * n;
      let s = a[row + j];
      for (let k = from; k < j; k++) s -= a[row + k] * a[rowJ + k];
      a[row + j] = s * inverse;
    }
  }
  let i = to;
  for (; i + 3 < n; i += 4) eliminateFour(a, n, from, to, i);
  for (; i < n; i++) {
    const row = i * n;
    for (let j = from; j < to; j++) {
      const rowJ = j * n;
      let s = a[row + j];
      for (let k = from; k < j; k++) s -= a[row + k] * a[rowJ + k];
      a[row + j] = s / a[rowJ + j];
    }
  }
  return true;
}

/** Columns `from`…`to` of four rows below the panel: their sums do not wait for each other. */
function eliminateFour(a: Float64Array, n: number, from: number, to: number, i: number): void {
  const r0 = i * n;
  const r1 = r0 + n;
  const r2 = r1 + n;
  const r3 = r2 + n;
  for (let j = from; j < to; j++) {
    const rowJ = j * n;
    let s0 = a[r0 + j];
    let s1 = a[r1 + j];
    let s2 = a[r2 + j];
    let s3 = a[r3 + j];
    for (let k = from; k < j; k++) {
      const y = a[rowJ + k];
      s0 -= a[r0 + k] * y;
      s1 -= a[r1 + k] * y;
      s2 -= a[r2 + k] * y;
      s3 -= a[r3 + k] * y;
    }
    const pivot = a[rowJ + j];
    a[r0 + j] = s0 / pivot;
    a[r1 + j] = s1 / pivot;
    a[r2 + j] = s2 / pivot;
    a[r3 + j] = s3 / pivot;
  }
}

/** A₂₂ ← A₂₂ − L₂₁·L₂₁ᵀ, lower triangle, two rows by four columns at a time. */
function updateTrailing(a: Float64Array, n: number, from: number, to: number): void {
  let i = to;
  for (; i + 1 < n; i += 2) {
    const r0 = i * n;
    const r1 = r0 + n;
    let j = to;
    for (; j + 3 <= i; j += 4) {
      const c0 = j * n;
      const c1 = c0 + n;
      const c2 = c1 + n;
      const c3 = c2 + n;
      let s00 = 0;
      let s01 = 0;
      let s02 = 0;
      let s03 = 0;
      let s10 = 0;
      let s11 = 0;
      let s12 = 0;
      let s13 = 0;
      for (let k = from; k < to; k++) {
        const x0 = a[r0 + k];
        const x1 = a[r1 + k];
        const y0 = a[c0 + k];
        const y1 = a[c1 + k];
        const y2 = a[c2 + k];
        const y3 = a[c3 + k];
        s00 += x0 * y0;
        s01 += x0 * y1;
        s02 += x0 * y2;
        s03 += x0 * y3;
        s10 += x1 * y0;
        s11 += x1 * y1;
        s12 += x1 * y2;
        s13 += x1 * y3;
      }
      a[r0 + j] -= s00;
      a[r0 + j + 1] -= s01;
      a[r0 + j + 2] -= s02;
      a[r0 + j + 3] -= s03;
      a[r1 + j] -= s10;
      a[r1 + j + 1] -= s11;
      a[r1 + j + 2] -= s12;
      a[r1 + j + 3] -= s13;
    }
    subtractRow(a, n, from, to, i, j, i);
    subtractRow(a, n, from, to, i + 1, j, i + 1);
  }
  if (i < n) subtractRow(a, n, from, to, i, to, i);
}

/** The same for columns `first`…`last` of one row. */
function subtractRow(
  a: Float64Array,
  n: number,
  from: number,
  to: number,
  i: number,
  first: number,
  last: number,
): void {
  const row = i * n;
  for (let j = first; j <= last; j++) {
    const column = j * n;
    let s = 0;
    for (let k = from; k < to; k++) s += a[row + k] * a[column + k];
    a[row + j] -= s;
  }
}

/** Solves L·Lᵀ·x = b in place for one right side, L as `choleskyFactor` leaves it. */
export function choleskySolve(l: Float64Array, n: number, b: Float64Array): void {
  solveLower(l, n, b);
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
