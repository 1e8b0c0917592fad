/**
 * Cubic B-splines on 0..1 with even knots, clamped, the first and the last left out, so that all vanish at both ends.
 * Their values at t go into `out`, whose length is their number (2 at least).
 */
export function cubicBasis(t: number, out: Float64Array): void {
  const x = Math.min(1, Math.max(0, t));
  const degree = 3;
  const spans = out.length - 1;
  const knot = (i: number): number => Math.min(1, Math.max(0, (i - degree) / spans));
  // Cox and de Boor from the span that holds x.
  const span = degree + Math.min(spans - 1, Math.floor(x * spans));
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
    const index = span - degree + k - 1;
    if (index >= 0 && index < out.length) out[index] = values[k];
  }
}
