import { axisToAb } from './labAxis.ts';

/** Lab of all nodes of a B2A table: L* linear, a* and b* on the bent axis; row-major node × 3, b* fastest. */
export function labGridValues(points: number): Float64Array {
  const out = new Float64Array(points ** 3 * 3);
  let at = 0;
  for (let l = 0; l < points; l++)
    for (let a = 0; a < points; a++)
      for (let b = 0; b < points; b++) {
        out[at++] = (100 * l) / (points - 1);
        out[at++] = axisToAb(a / (points - 1));
        out[at++] = axisToAb(b / (points - 1));
      }
  return out;
}
