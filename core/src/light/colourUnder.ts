import { adaptationMatrix } from '../colour/chromaticAdaptation.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { PatchSpectra } from '../cgats/patchSet.ts';
import { applyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import { spectraToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import type { Observer } from '../spectral/xyzWeights.ts';

/** A light that colours are seen in, and by whom. */
export interface SeenIn {
  readonly light: Illuminant;
  readonly observer: Observer;
}

/** Spectra as they look in a light, brought to the white that profiles are connected by. */
export interface ColoursUnder {
  /** Row-major patch × 3, D50, Y of a perfect reflector 100. */
  readonly xyz: Float64Array;
  /** From XYZ under the light to D50, as the tag `chad` keeps it. */
  readonly adaptation: Matrix3;
}

/** Colours under a light, adapted to D50 by Bradford's transform, as ICC.1:2022 (Annex E) asks. */
export function coloursUnder({ grid, values }: PatchSpectra, { light, observer }: SeenIn): ColoursUnder {
  const weights = createXyzWeights(grid, light, observer);
  const xyz = new Float64Array((values.length / grid.count) * 3);
  spectraToXyz(weights, values, xyz);
  const adaptation = adaptationMatrix(weights.white, WHITE_D50_MEASURED);
  for (let at = 0; at < xyz.length; at += 3)
    xyz.set(applyMatrix3(adaptation, [xyz[at], xyz[at + 1], xyz[at + 2]]), at);
  return { xyz, adaptation };
}
