import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { lagrangeStencil } from '../spectral/lagrangeResample.ts';
import type { SpectralProduct } from './data/densityProducts.ts';
import { DENSITY_FILTERS, LEAST_REFLECTANCE } from './density.ts';
import type { Densities, DensityStatus } from './density.ts';

/** Density of one spectrum of reflectance factors. */
export type DensityOf = (reflectance: ArrayLike<number>, at?: number) => number;

/**
 * The densities of `densities` with their weights worked out once for a grid: for many patches of a run.
 * @returns by filter; `at` is where the spectrum begins.
 */
export function createStatusDensity(
  grid: SpectralGrid,
  status: DensityStatus,
): Readonly<Record<keyof Densities, DensityOf>> {
  const filters = DENSITY_FILTERS[status];
  return {
    red: weighted(filters.red, grid),
    green: weighted(filters.green, grid),
    blue: weighted(filters.blue, grid),
    visual: weighted(filters.visual, grid),
  };
}

function weighted(product: SpectralProduct, grid: SpectralGrid): DensityOf {
  const weights = new Float64Array(grid.count);
  let total = 0;
  product.log10Product.forEach((log, i) => {
    const weight = 10 ** log;
    const stencil = lagrangeStencil(grid, product.startNm + i * product.stepNm);
    stencil.weights.forEach((share, k) => (weights[stencil.first + k] += weight * share));
    total += weight;
  });
  return (reflectance, at = 0) => {
    let signal = 0;
    for (let band = 0; band < weights.length; band++) signal += weights[band] * reflectance[at + band];
    return -Math.log10(Math.max(LEAST_REFLECTANCE, signal / total));
  };
}
