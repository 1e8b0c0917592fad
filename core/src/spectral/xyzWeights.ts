import {
  CMF_1931_2DEG,
  CMF_1964_10DEG,
  TABLE_COUNT,
  TABLE_START_NM,
  TABLE_STEP_NM,
} from './data/cieTables.ts';
import type { Illuminant } from './illuminant.ts';
import { lagrangeStencil } from './lagrangeResample.ts';
import type { SpectralGrid } from './spectralGrid.ts';
import type { Xyz } from '../colour/xyz.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';

export const OBSERVERS = ['2deg', '10deg'] as const;
export type Observer = (typeof OBSERVERS)[number];

/** An observer as people write it: `2°`. */
export const observerWords = (observer: Observer): string => observer.replace('deg', '°');

/** Weights that turn reflectance factors on one grid into XYZ. */
export interface XyzWeights {
  readonly grid: SpectralGrid;
  readonly illuminant: string;
  readonly observer: Observer;
  /** Row-major, count × 3. Y of a perfect reflector is 100. */
  readonly weights: Float64Array;
  readonly white: Xyz;
}

/** Tristimulus values of a perfect reflector from the 5 nm tables, Y = 100. */
export function illuminantWhite(illuminant: Illuminant, observer: Observer): Xyz {
  const cmf = observer === '2deg' ? CMF_1931_2DEG : CMF_1964_10DEG;
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < TABLE_COUNT; i++) {
    x += illuminant.power[i] * cmf.x[i];
    y += illuminant.power[i] * cmf.y[i];
    z += illuminant.power[i] * cmf.z[i];
  }
  return [(100 * x) / y, 100, (100 * z) / y];
}

/**
 * Weights for readings on `grid`: the reflectance is interpolated to 5 nm by third-order Lagrange polynomials
 * (ASTM E308), the weights of wavelengths outside the grid are added to its end bands.
 * For D50 and the 2° observer the result is scaled from the table's own white to the nominal 96.422, 100, 82.521
 * (ISO 13655), so that a perfect reflector has a* = b* = 0.
 */
export function createXyzWeights(grid: SpectralGrid, illuminant: Illuminant, observer: Observer): XyzWeights {
  if (grid.count < 2 || !(grid.stepNm > 0))
    throw new RangeError(`grid of ${grid.count} bands, step ${grid.stepNm} nm`);
  const cmf = observer === '2deg' ? CMF_1931_2DEG : CMF_1964_10DEG;
  const own = illuminantWhite(illuminant, observer);
  const white: Xyz = illuminant.name === 'D50' && observer === '2deg' ? WHITE_D50_MEASURED : own;
  let ySum = 0;
  for (let i = 0; i < TABLE_COUNT; i++) ySum += illuminant.power[i] * cmf.y[i];
  const scale = [0, 1, 2].map((axis) => ((100 / ySum) * white[axis]) / own[axis]);
  const weights = new Float64Array(grid.count * 3);
  for (let i = 0; i < TABLE_COUNT; i++) {
    const stencil = lagrangeStencil(grid, TABLE_START_NM + i * TABLE_STEP_NM);
    const power = illuminant.power[i];
    stencil.weights.forEach((weight, k) => {
      const row = (stencil.first + k) * 3;
      weights[row] += weight * power * cmf.x[i] * scale[0];
      weights[row + 1] += weight * power * cmf.y[i] * scale[1];
      weights[row + 2] += weight * power * cmf.z[i] * scale[2];
    });
  }
  return { grid, illuminant: illuminant.name, observer, weights, white };
}
