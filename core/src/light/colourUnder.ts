import { adaptationMatrix } from '../colour/chromaticAdaptation.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { PatchSpectra } from '../cgats/patchSet.ts';
import { applyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import type { SpectrumOn } from './metamerism.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import { spectraToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights, illuminantWhite } from '../spectral/xyzWeights.ts';
import type { Observer } from '../spectral/xyzWeights.ts';

/** A light that colours are seen in, and by whom. */
export interface SeenIn {
  readonly light: Illuminant;
  readonly observer: Observer;
}

/** From XYZ under a light to D50 by Bradford's transform (ICC.1:2022, Annex E), as the tag `chad` keeps it. */
export function adaptationOf({ light, observer }: SeenIn): Matrix3 {
  return adaptationMatrix(illuminantWhite(light, observer), WHITE_D50_MEASURED);
}

/** Spectra as a light shows them, brought to D50: row-major patch × 3, Y of a perfect reflector 100. */
export function coloursUnder({ grid, values }: PatchSpectra, seen: SeenIn): Float64Array {
  const weights = createXyzWeights(grid, seen.light, seen.observer);
  const xyz = new Float64Array((values.length / grid.count) * 3);
  spectraToXyz(weights, values, xyz);
  // The white of the weights is the table's own, but for D50, whose nominal one they are scaled to.
  const adaptation = adaptationMatrix(weights.white, WHITE_D50_MEASURED);
  for (let at = 0; at < xyz.length; at += 3)
    xyz.set(applyMatrix3(adaptation, [xyz[at], xyz[at + 1], xyz[at + 2]]), at);
  return xyz;
}

/** The same as Lab for D50: row-major patch × 3. */
export function labsUnder({ grid, values }: SpectrumOn, seen: SeenIn): Float64Array {
  return measuredLabRows(coloursUnder({ grid, values: Float64Array.from(values) }, seen));
}
