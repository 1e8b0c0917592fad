/** Clamped cubic B-splines on 0..1 with even knots, the first and the last left out: all vanish at both ends. */
export const FREE_BASIS = 7;
const SPANS = FREE_BASIS - 1;

/** Values of the basis functions at t, into `out` (length 7). */
export function cubicBasis(t: number, out: Float64Array): void {
  const x = Math.min(1, Math.max(0, t));
  const degree = 3;
  const count = FREE_BASIS + 2;
  const knot = (i: number): number => Math.min(1, Math.max(0, (i - degree) / SPANS));
  // Cox and de Boor from the span that holds x.
  let span = Math.min(degree + SPANS - 1, degree + Math.floor(x * SPANS));
  span = Math.max(degree, span);
  const values = new Float64Array(degree + 1);
  values[0] = 1;
  for (let d = 1; d <= degree; d++) {
    let saved = 0;
    for (let r = 0; r < d; r++) {
      const right = knot(span + r + 1);
      const left = knot(span + 1 - d + r);
      const share = right > left ? values[r] / (right - left) : 0;
      values[r] = saved + (right - x) * share;
      saved = (x - left) * share;
    }
    values[d] = saved;
  }
  out.fill(0);
  for (let k = 0; k <= degree; k++) {
    const index = span - degree + k;
    if (index > 0 && index < count - 1) out[index - 1] = values[k];
  }
}
