import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { tableIlluminant } from './illuminant.ts';
import type { SpectralGrid } from './spectralGrid.ts';
import { spectrumToXyz } from './spectrumToXyz.ts';
import { createXyzWeights } from './xyzWeights.ts';

/** Lab for D50 and 2° of one spectrum of reflectance factors 0..1, one per band of the grid. */
export function spectrumLab(grid: SpectralGrid, reflectance: ArrayLike<number>): Lab {
  const weights = createXyzWeights(grid, tableIlluminant('D50'), '2deg');
  return xyzToLab(spectrumToXyz(weights, reflectance), WHITE_D50_MEASURED);
}
