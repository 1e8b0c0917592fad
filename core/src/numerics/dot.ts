/**
 * Σ a[from + k]·b[at + k] over `count` terms. Four sums run beside each other: one alone would wait for each of its own
 * additions to end.
 */
export function dotAt(a: Float64Array, from: number, b: Float64Array, at: number, count: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let k = 0;
  for (; k + 3 < count; k += 4) {
    s0 += a[from + k] * b[at + k];
    s1 += a[from + k + 1] * b[at + k + 1];
    s2 += a[from + k + 2] * b[at + k + 2];
    s3 += a[from + k + 3] * b[at + k + 3];
  }
  for (; k < count; k++) s0 += a[from + k] * b[at + k];
  return s0 + s1 + (s2 + s3);
}

/** L·x = b in place, L lower triangular in row-major n×n. */
export function solveLower(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) b[i] = (b[i] - dotAt(l, i * n, b, 0, i)) / l[i * n + i];
}
