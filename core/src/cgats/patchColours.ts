import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { spectraToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import type { PatchSet } from './patchSet.ts';

/** XYZ (D50/2°, Y = 100) of all patches: from spectra where there are any, else as read, else from Lab. */
export function patchXyz(set: PatchSet): Float64Array | undefined {
  if (set.spectra !== undefined) {
    const out = new Float64Array(set.ids.length * 3);
    spectraToXyz(createXyzWeights(set.spectra.grid, tableIlluminant('D50'), '2deg'), set.spectra.values, out);
    return out;
  }
  if (set.xyz !== undefined) return set.xyz;
  if (set.lab === undefined) return undefined;
  const out = new Float64Array(set.lab.length);
  for (let i = 0; i < out.length; i += 3)
    out.set(labToXyz([set.lab[i], set.lab[i + 1], set.lab[i + 2]], WHITE_D50_MEASURED), i);
  return out;
}
