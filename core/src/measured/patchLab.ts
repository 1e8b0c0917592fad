import { patchXyz } from '../cgats/patchColours.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';

/** Lab of all patches, row-major × 3, from spectra, XYZ or Lab; undefined where a set has none of them. */
export function patchLab(set: PatchSet): Float64Array | undefined {
  const xyz = patchXyz(set);
  if (xyz === undefined) return undefined;
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}
