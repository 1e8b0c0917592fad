import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { lagrangeStencil } from '../spectral/lagrangeResample.ts';
import { STATUS_A, STATUS_E, STATUS_I, STATUS_T, VISUAL } from './data/densityProducts.ts';
import type { SpectralProduct } from './data/densityProducts.ts';

/** By ISO 5-3: E and T for prints by filters, A for photographs, I in narrow bands for process inks. */
export const DENSITY_STATUSES = ['E', 'T', 'A', 'I'] as const;
export type DensityStatus = (typeof DENSITY_STATUSES)[number];

const FILTERS = { E: STATUS_E, T: STATUS_T, A: STATUS_A, I: STATUS_I } as const;

/** Reflection densities of one patch: through the red, green, blue filters and the visual one. */
export interface Densities {
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  readonly visual: number;
}

/** Density below which a reading is taken as no light at all (R = 1e-5). */
const LEAST_REFLECTANCE = 1e-5;

/** Density of one spectrum of reflectance factors. */
export type DensityOf = (reflectance: ArrayLike<number>) => number;

/** A product on a grid: its stencils and weights worked out once, for many spectra. */
function productOn(product: SpectralProduct, grid: SpectralGrid): DensityOf {
  const terms = product.log10Product.map((log, i) => ({
    weight: 10 ** log,
    stencil: lagrangeStencil(grid, product.startNm + i * product.stepNm),
  }));
  const total = terms.reduce((sum, { weight }) => sum + weight, 0);
  return (reflectance) => {
    let signal = 0;
    for (const { weight, stencil } of terms) {
      let r = 0;
      for (let k = 0; k < stencil.weights.length; k++)
        r += stencil.weights[k] * reflectance[stencil.first + k];
      signal += weight * r;
    }
    return -Math.log10(Math.max(LEAST_REFLECTANCE, signal / total));
  };
}

/** Absolute reflection densities (ISO 5-3) on a grid, by filter; subtract the paper's for relative ones. */
export function statusDensity(
  grid: SpectralGrid,
  status: DensityStatus = 'E',
): Readonly<Record<keyof Densities, DensityOf>> {
  const { red, green, blue } = FILTERS[status];
  return {
    red: productOn(red, grid),
    green: productOn(green, grid),
    blue: productOn(blue, grid),
    visual: productOn(VISUAL, grid),
  };
}

/** The densities of one spectrum of reflectance factors 0..1. */
export function densities(
  grid: SpectralGrid,
  reflectance: ArrayLike<number>,
  status: DensityStatus = 'E',
): Densities {
  const { red, green, blue, visual } = statusDensity(grid, status);
  return {
    red: red(reflectance),
    green: green(reflectance),
    blue: blue(reflectance),
    visual: visual(reflectance),
  };
}

export function visualDensity(grid: SpectralGrid, reflectance: ArrayLike<number>): number {
  return productOn(VISUAL, grid)(reflectance);
}

/** Neutral density −log10(Y/Yn), D50/2°, of grey scales; it is not ISO visual density. */
export function neutralDensity(y: number, yWhite = 100): number {
  return -Math.log10(Math.max(LEAST_REFLECTANCE, y / yWhite));
}
