/**
 * Solves the 3×3 system A·x = b by Cramer's rule.
 * @returns false where A is singular to working precision; `out` is then undefined.
 */
export function solve3(a: Float64Array, b: Float64Array, out: Float64Array): boolean {
  const a0 = a[0],
    a1 = a[1],
    a2 = a[2],
    a3 = a[3],
    a4 = a[4],
    a5 = a[5],
    a6 = a[6],
    a7 = a[7],
    a8 = a[8];
  const determinant = a0 * (a4 * a8 - a5 * a7) - a1 * (a3 * a8 - a5 * a6) + a2 * (a3 * a7 - a4 * a6);
  if (!(Math.abs(determinant) > 1e-14)) return false;
  const s = 1 / determinant;
  const b0 = b[0],
    b1 = b[1],
    b2 = b[2];
  out[0] = s * (b0 * (a4 * a8 - a5 * a7) - a1 * (b1 * a8 - a5 * b2) + a2 * (b1 * a7 - a4 * b2));
  out[1] = s * (a0 * (b1 * a8 - a5 * b2) - b0 * (a3 * a8 - a5 * a6) + a2 * (a3 * b2 - b1 * a6));
  out[2] = s * (a0 * (a4 * b2 - b1 * a7) - a1 * (a3 * b2 - b1 * a6) + b0 * (a3 * a7 - a4 * a6));
  return true;
}
