import type { Xyz } from '../colour/xyz.ts';
import type { XyzWeights } from './xyzWeights.ts';

/** XYZ (Y = 100 for a perfect reflector) of one spectrum of reflectance factors 0..1 on the grid of the weights. */
export function spectrumToXyz(weights: XyzWeights, reflectance: ArrayLike<number>): Xyz {
  if (reflectance.length !== weights.grid.count)
    throw new RangeError(`${reflectance.length} bands for weights of ${weights.grid.count}`);
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < reflectance.length; i++) {
    const r = reflectance[i];
    x += r * weights.weights[3 * i];
    y += r * weights.weights[3 * i + 1];
    z += r * weights.weights[3 * i + 2];
  }
  return [x, y, z];
}

/** Batch form: `spectra` row-major patch × band, `out` row-major patch × 3. */
export function spectraToXyz(weights: XyzWeights, spectra: ArrayLike<number>, out: Float64Array): void {
  const bands = weights.grid.count;
  const patches = spectra.length / bands;
  if (out.length !== patches * 3) throw new RangeError(`${out.length} values out for ${patches} spectra`);
  const w = weights.weights;
  for (let p = 0; p < patches; p++) {
    let x = 0;
    let y = 0;
    let z = 0;
    for (let i = 0; i < bands; i++) {
      const r = spectra[p * bands + i];
      x += r * w[3 * i];
      y += r * w[3 * i + 1];
      z += r * w[3 * i + 2];
    }
    out[3 * p] = x;
    out[3 * p + 1] = y;
    out[3 * p + 2] = z;
  }
}
