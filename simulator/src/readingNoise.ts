import type { Lab } from '@melto/core/colour/lab';
import type { Random } from '@melto/core/numerics/random';
import { solve3 } from '@melto/core/numerics/solve3';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { spectrumToXyz } from '@melto/core/spectral/spectrumToXyz';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzToLab } from '@melto/core/colour/xyzToLab';

const WEIGHTS = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');
const BANDS = GRID_380_730_10.count;
/** Three broad shapes that carry a change of colour, centred where blue, green and red receptors are. */
const SHAPES = [450, 545, 610].map((centre) =>
  Float64Array.from(gridWavelengths(GRID_380_730_10), (nm) => Math.exp(-0.5 * ((nm - centre) / 38) ** 2)),
);
/** Mean length of a standard normal vector in three dimensions. */
const MEAN_NORMAL_LENGTH = Math.sqrt(8 / Math.PI);

/**
 * Adds noise to one spectrum in place so that its ΔE00 to the noise-free one is `meanDeltaE` on average: a normal
 * draw along the L, C and H directions over their ΔE00 weights, carried by three broad changes of the spectrum.
 */
export function addReadingNoise(
  spectrum: Float64Array,
  at: number,
  meanDeltaE: number | ((lightness: number) => number),
  random: Random,
): void {
  const own = spectrum.subarray(at, at + BANDS);
  const xyz = spectrumToXyz(WEIGHTS, own);
  const [l, a, b] = xyzToLab(xyz, WHITE_D50_MEASURED);
  const size = typeof meanDeltaE === 'number' ? meanDeltaE : meanDeltaE(l);
  const wanted = labToXyz(noisyLab([l, a, b], size, random), WHITE_D50_MEASURED);
  const matrix = new Float64Array(9);
  SHAPES.forEach((shape, k) => {
    const column = spectrumToXyz(
      WEIGHTS,
      shape.map((value, i) => value * (0.1 + own[i])),
    );
    for (let axis = 0; axis < 3; axis++) matrix[3 * axis + k] = column[axis];
  });
  const change = Float64Array.from(wanted, (value, axis) => value - xyz[axis]);
  const factors = new Float64Array(3);
  if (!solve3(matrix, change, factors)) return;
  for (let i = 0; i < BANDS; i++) {
    const relative = factors[0] * SHAPES[0][i] + factors[1] * SHAPES[1][i] + factors[2] * SHAPES[2][i];
    own[i] = Math.max(1e-5, own[i] + relative * (0.1 + own[i]));
  }
}

/** A Lab value a normal draw away along its L, C and H directions over their ΔE00 weights, `meanDeltaE` on average. */
export function noisyLab([l, a, b]: Lab, meanDeltaE: number, random: Random): Lab {
  const size = meanDeltaE / MEAN_NORMAL_LENGTH;
  const chroma = Math.hypot(a, b);
  const sL = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const dL = size * sL * random.normal();
  const dC = size * (1 + 0.045 * chroma) * random.normal();
  const dH = size * (1 + 0.015 * chroma) * random.normal();
  const ca = chroma > 1e-6 ? a / chroma : 1;
  const cb = chroma > 1e-6 ? b / chroma : 0;
  return [l + dL, a + ca * dC - cb * dH, b + cb * dC + ca * dH];
}
