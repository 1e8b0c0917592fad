import type { SpectralGrid } from './spectralGrid.ts';
import { gridEndNm } from './spectralGrid.ts';

export interface LagrangeStencil {
  readonly first: number;
  readonly weights: readonly number[];
}

/**
 * Weights that interpolate a value at `nm` from samples on `grid`: third order (four samples) inside, second
 * order in the first and last interval, the end value outside (ASTM E308 and E2022).
 */
export function lagrangeStencil(grid: SpectralGrid, nm: number): LagrangeStencil {
  const last = grid.count - 1;
  if (nm <= grid.startNm) return { first: 0, weights: [1] };
  if (nm >= gridEndNm(grid)) return { first: last, weights: [1] };
  const position = (nm - grid.startNm) / grid.stepNm;
  const interval = Math.min(Math.floor(position), last - 1);
  const first = Math.max(0, interval - 1);
  const final = Math.min(last, interval + 2);
  const weights: number[] = [];
  for (let i = first; i <= final; i++) {
    let weight = 1;
    for (let j = first; j <= final; j++) if (j !== i) weight *= (position - j) / (i - j);
    weights.push(weight);
  }
  return { first, weights };
}

/** Resamples a spectrum to another regular grid. */
export function lagrangeResample(
  from: SpectralGrid,
  values: ArrayLike<number>,
  to: SpectralGrid,
): Float64Array {
  if (values.length !== from.count)
    throw new RangeError(`${values.length} values on a grid of ${from.count}`);
  return Float64Array.from({ length: to.count }, (_, i) => {
    const { first, weights } = lagrangeStencil(from, to.startNm + i * to.stepNm);
    return weights.reduce((sum, weight, k) => sum + weight * values[first + k], 0);
  });
}
