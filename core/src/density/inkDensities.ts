import { MAIN_AXIS } from '../tone/mainAxis.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { statusDensity } from './density.ts';
import type { DensityStatus } from './density.ts';

/**
 * Absolute densities of patches by the filters of C, M, Y and K (red, green, blue, visual; ISO 5-3), row-major × 4,
 * from spectra.
 */
export function inkDensitiesOfSpectra(
  grid: SpectralGrid,
  spectra: Float64Array,
  status: DensityStatus = 'E',
): Float64Array {
  const count = spectra.length / grid.count;
  const out = new Float64Array(count * 4);
  const { red, green, blue, visual } = statusDensity(grid, status);
  for (let i = 0; i < count; i++) {
    const own = spectra.subarray(i * grid.count, (i + 1) * grid.count);
    out.set([red(own), green(own), blue(own), visual(own)], 4 * i);
  }
  return out;
}

/** The same from XYZ where there are no spectra: −log10 of X, Y, Z and Y over D50; near a status density, not one. */
export function inkDensitiesOfXyz(xyz: Float64Array): Float64Array {
  return Float64Array.from({ length: (xyz.length / 3) * 4 }, (_, i) => {
    const axis = MAIN_AXIS[i % 4];
    return -Math.log10(Math.max(1e-4, xyz[3 * Math.floor(i / 4) + axis] / WHITE_D50_MEASURED[axis]));
  });
}
