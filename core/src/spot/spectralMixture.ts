import { inkPhysicsAreas } from '../characterise/inkPhysics.ts';
import { mixtureWeights } from '../characterise/mixture.ts';
import type { InkPhysics } from '../characterise/inkPhysics.ts';
import { solvePositiveDefinite } from '../numerics/cholesky.ts';

/** Spectra of inks on a stock, mixed from their solids band by band. */
export interface SpectralMixture {
  readonly physics: InkPhysics;
  readonly bands: number;
  /** Of each band the areas to take: shares of those of X, Y and Z. */
  readonly shares: Float64Array;
  /** Roots of the solids, row-major band × 2^inks. */
  readonly roots: Float64Array;
}

const RIDGE = 1e-5;
/** Middles of what X, Y and Z see, nm, and how fast one gives way to the other. */
const SEEN = { x: 605, y: 550, z: 450 } as const;
const LEAST = 1e-4;

/**
 * Fits the spectra of the solids to a reading, over the areas that a model of its colours has found.
 * @param device row-major × ink.
 * @param spectra reflectance factors, row-major × band.
 * @param wavelengths nm of the bands.
 */
export function fitSpectralMixture(
  physics: InkPhysics,
  device: Float64Array,
  spectra: Float64Array,
  wavelengths: ArrayLike<number>,
): SpectralMixture {
  const bands = wavelengths.length;
  const { inks, nu } = physics;
  const rows = device.length / inks;
  const size = 1 << inks;
  const shares = bandShares(wavelengths);
  const roots = new Float64Array(bands * size);
  const areas = Array.from({ length: rows }, (_, row) =>
    inkPhysicsAreas(physics, device.subarray(row * inks, (row + 1) * inks)),
  );
  const weights = new Float64Array(size);
  for (let band = 0; band < bands; band++) {
    const normal = new Float64Array(size * size);
    const right = new Float64Array(size);
    for (let row = 0; row < rows; row++) {
      mixtureOf(areas[row], shares, band, inks, weights);
      const target = Math.max(LEAST, spectra[row * bands + band]) ** (1 / nu);
      for (let p = 0; p < size; p++) {
        if (weights[p] === 0) continue;
        right[p] += weights[p] * target;
        for (let q = 0; q < size; q++) normal[p * size + q] += weights[p] * weights[q];
      }
    }
    for (let p = 0; p < size; p++) normal[p * (size + 1)] += RIDGE * rows;
    roots.set(solvePositiveDefinite(normal, size, right), band * size);
  }
  return { physics, bands, shares, roots };
}

/** Reflectance factors of one mixture, by band. */
export function mixtureSpectrum(
  { physics, bands, shares, roots }: SpectralMixture,
  device: ArrayLike<number>,
): Float64Array {
  const { inks, nu } = physics;
  const size = 1 << inks;
  const areas = inkPhysicsAreas(physics, device);
  const weights = new Float64Array(size);
  return Float64Array.from({ length: bands }, (_, band) => {
    mixtureOf(areas, shares, band, inks, weights);
    let root = 0;
    for (let p = 0; p < size; p++) root += weights[p] * roots[band * size + p];
    return Math.max(LEAST, root) ** nu;
  });
}

function mixtureOf(
  areas: readonly Float64Array[],
  shares: Float64Array,
  band: number,
  inks: number,
  out: Float64Array,
): void {
  const own = Float64Array.from({ length: inks }, (_, ink) => {
    let area = 0;
    for (let axis = 0; axis < 3; axis++) area += shares[3 * band + axis] * areas[axis][ink];
    return Math.min(1, Math.max(0, area));
  });
  mixtureWeights(own, inks, out);
}

/** Shares of X, Y, Z in each band, row-major × 3: by where each of them sees most. */
function bandShares(wavelengths: ArrayLike<number>): Float64Array {
  const out = new Float64Array(wavelengths.length * 3);
  for (let band = 0; band < wavelengths.length; band++) {
    const nm = wavelengths[band];
    const z = Math.min(1, Math.max(0, (SEEN.y - nm) / (SEEN.y - SEEN.z)));
    const x = Math.min(1, Math.max(0, (nm - SEEN.y) / (SEEN.x - SEEN.y)));
    out.set([x, 1 - x - z, z], 3 * band);
  }
  return out;
}
