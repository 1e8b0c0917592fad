import { WHITE_D50_MEASURED } from './whitePoints.ts';
import { xyzRowsToLab } from './xyzToLab.ts';

/** Lab of measured colours, D50 and 2°, from their XYZ (Y = 100): rows of three, as rows of their own. */
export function measuredLabRows(xyz: ArrayLike<number>): Float64Array {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}
