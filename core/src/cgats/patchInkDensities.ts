import { inkDensitiesOfSpectra, inkDensitiesOfXyz } from '../density/inkDensities.ts';
import type { PatchSet } from './patchSet.ts';
import { patchXyz } from './patchColours.ts';

/** Absolute densities of all patches by the filters of C, M, Y and K, row-major × 4: from spectra, else from XYZ. */
export function patchInkDensities(set: PatchSet): Float64Array | undefined {
  if (set.spectra !== undefined) return inkDensitiesOfSpectra(set.spectra.grid, set.spectra.values);
  const xyz = patchXyz(set);
  return xyz === undefined ? undefined : inkDensitiesOfXyz(xyz);
}
