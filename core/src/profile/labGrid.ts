import { abToAxis, axisToAb, axisToLightness, lightnessToAxis } from './labAxis.ts';
import type { LabAxes } from './labAxis.ts';

/** Lab of all nodes of a B2A table; row-major node × 3, b* fastest. */
export function labGridValues(points: number, axes: LabAxes): Float64Array {
  const out = new Float64Array(points ** 3 * 3);
  let at = 0;
  for (let l = 0; l < points; l++)
    for (let a = 0; a < points; a++)
      for (let b = 0; b < points; b++) {
        out[at++] = axisToLightness(l / (points - 1), axes);
        out[at++] = axisToAb(a / (points - 1), axes);
        out[at++] = axisToAb(b / (points - 1), axes);
      }
  return out;
}

/** Place of a colour in such a table, 0..1 along each axis. */
export function labGridPlace(lab: ArrayLike<number>, axes: LabAxes): [number, number, number] {
  return [lightnessToAxis(lab[0], axes), abToAxis(lab[1], axes), abToAxis(lab[2], axes)];
}
