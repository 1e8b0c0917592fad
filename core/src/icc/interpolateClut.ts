/**
 * Tetrahedral interpolation in a table of three inputs.
 * @param values row-major, last input fastest, `outputs` values a node; read as they are, not normalised.
 * @param grid points per input.
 * @param x three inputs 0..1 at `xAt`, clipped.
 * @param out receives `outputs` values from `outAt` on.
 */
export function interpolateTetrahedral(
  values: ArrayLike<number>,
  grid: readonly number[],
  outputs: number,
  x: Float64Array,
  xAt: number,
  out: Float64Array,
  outAt: number,
): void {
  const s2 = outputs;
  const s1 = grid[2] * s2;
  const s0 = grid[1] * s1;
  const p0 = Math.min(1, Math.max(0, x[xAt])) * (grid[0] - 1);
  const p1 = Math.min(1, Math.max(0, x[xAt + 1])) * (grid[1] - 1);
  const p2 = Math.min(1, Math.max(0, x[xAt + 2])) * (grid[2] - 1);
  const i0 = Math.min(p0 | 0, grid[0] - 2);
  const i1 = Math.min(p1 | 0, grid[1] - 2);
  const i2 = Math.min(p2 | 0, grid[2] - 2);
  const f0 = p0 - i0;
  const f1 = p1 - i1;
  const f2 = p2 - i2;
  const base = i0 * s0 + i1 * s1 + i2 * s2;
  const top = base + s0 + s1 + s2;
  // The path from the lowest to the highest corner steps along the axes in the order of falling fractions.
  let a: number;
  let b: number;
  let fa: number;
  let fb: number;
  let fc: number;
  if (f0 >= f1) {
    if (f1 >= f2) {
      a = s0;
      b = s0 + s1;
      fa = f0;
      fb = f1;
      fc = f2;
    } else if (f0 >= f2) {
      a = s0;
      b = s0 + s2;
      fa = f0;
      fb = f2;
      fc = f1;
    } else {
      a = s2;
      b = s2 + s0;
      fa = f2;
      fb = f0;
      fc = f1;
    }
  } else if (f0 >= f2) {
    a = s1;
    b = s1 + s0;
    fa = f1;
    fb = f0;
    fc = f2;
  } else if (f1 >= f2) {
    a = s1;
    b = s1 + s2;
    fa = f1;
    fb = f2;
    fc = f0;
  } else {
    a = s2;
    b = s2 + s1;
    fa = f2;
    fb = f1;
    fc = f0;
  }
  const w0 = 1 - fa;
  const w1 = fa - fb;
  const w2 = fb - fc;
  for (let o = 0; o < outputs; o++)
    out[outAt + o] =
      w0 * values[base + o] + w1 * values[base + a + o] + w2 * values[base + b + o] + fc * values[top + o];
}
