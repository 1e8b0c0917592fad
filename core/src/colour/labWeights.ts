/**
 * Rows of W at a target: the directions of lightness, chroma and hue over their ΔE weights; row-major 3 × 3.
 * @param hueWeight how much heavier hue weighs than chroma where a colour is out of gamut; it fades below C* 15.
 */
export function labWeights(l: number, a: number, b: number, hueWeight: number, out: Float64Array): void {
  const chroma = Math.hypot(a, b);
  const l50 = (l - 50) ** 2;
  const sL = 1 + (0.015 * l50) / Math.sqrt(20 + l50);
  const sC = 1 + 0.045 * chroma;
  const fade = Math.min(1, chroma / 15);
  const hue = (1 + (hueWeight - 1) * fade) / (1 + 0.015 * chroma);
  const ca = chroma > 1e-9 ? a / chroma : 1;
  const cb = chroma > 1e-9 ? b / chroma : 0;
  out.set([1 / sL, 0, 0, 0, ca / sC, cb / sC, 0, -cb * hue, ca * hue]);
}
