/** Bend of the a* and b* axes of a B2A table: dense near neutral, coarse at high chroma. */
const BEND = 6;
const SCALE = Math.log(1 + BEND);

/** Position 0..1 on the bent axis of a*, b* in −128…128; 0 lies at 0.5. Values outside are clipped. */
export function abToAxis(ab: number): number {
  const p = Math.min(1, Math.abs(ab) / 128);
  const q = Math.log(1 + BEND * p) / SCALE;
  return 0.5 + (ab < 0 ? -q : q) / 2;
}

/** Inverse of `abToAxis`. */
export function axisToAb(position: number): number {
  const q = 2 * position - 1;
  const p = Math.expm1(Math.abs(q) * SCALE) / BEND;
  return (q < 0 ? -p : p) * 128;
}
