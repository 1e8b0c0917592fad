import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { lagrangeStencil } from '../spectral/lagrangeResample.ts';
import { STATUS_A, STATUS_E, STATUS_I, STATUS_T, VISUAL } from './data/densityProducts.ts';
import type { SpectralProduct } from './data/densityProducts.ts';

/** By ISO 5-3: E and T for prints by filters, A for photographs, I in narrow bands for process inks. */
export const DENSITY_STATUSES = ['E', 'T', 'A', 'I'] as const;
export type DensityStatus = (typeof DENSITY_STATUSES)[number];

/** Spectral products of the filters of each status. */
export const DENSITY_FILTERS = {
  E: { ...STATUS_E, visual: VISUAL },
  T: { ...STATUS_T, visual: VISUAL },
  A: { ...STATUS_A, visual: VISUAL },
  I: { ...STATUS_I, visual: VISUAL },
} as const;

/** Reflection densities of one patch: through the red, green, blue filters and the visual one. */
export interface Densities {
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  readonly visual: number;
}

/** Density below which a reading is taken as no light at all (R = 1e-5). */
export const LEAST_REFLECTANCE = 1e-5;

function productDensity(
  product: SpectralProduct,
  grid: SpectralGrid,
  reflectance: ArrayLike<number>,
): number {
  let signal = 0;
  let total = 0;
  product.log10Product.forEach((log, i) => {
    const weight = 10 ** log;
    const stencil = lagrangeStencil(grid, product.startNm + i * product.stepNm);
    let r = 0;
    for (let k = 0; k < stencil.weights.length; k++) r += stencil.weights[k] * reflectance[stencil.first + k];
    signal += weight * r;
    total += weight;
  });
  return -Math.log10(Math.max(LEAST_REFLECTANCE, signal / total));
}

/** Absolute reflection densities (ISO 5-3) of reflectance factors 0..1; subtract the paper's for relative ones. */
export function densities(
  grid: SpectralGrid,
  reflectance: ArrayLike<number>,
  status: DensityStatus = 'E',
): Densities {
  const filters = DENSITY_FILTERS[status];
  return {
    red: productDensity(filters.red, grid, reflectance),
    green: productDensity(filters.green, grid, reflectance),
    blue: productDensity(filters.blue, grid, reflectance),
    visual: productDensity(VISUAL, grid, reflectance),
  };
}

export function visualDensity(grid: SpectralGrid, reflectance: ArrayLike<number>): number {
  return productDensity(VISUAL, grid, reflectance);
}

/** Neutral density −log10(Y/Yn), D50/2°, of grey scales; it is not ISO visual density. */
export function neutralDensity(y: number, yWhite = 100): number {
  return -Math.log10(Math.max(LEAST_REFLECTANCE, y / yWhite));
}
