import { chartModel } from '../characterise/chartModel.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { coloursUnder } from '../light/colourUnder.ts';
import type { SeenIn } from '../light/colourUnder.ts';
import type { SpectrumOn } from '../light/metamerism.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';

/** A chart with its spectra: what tells how a device's inks look in any light. */
export interface SpectralChart {
  /** Of the device: 3 for light, 4 for inks. */
  readonly channels: 3 | 4;
  /** Row-major patch × channel, 0..1. */
  readonly device: ArrayLike<number>;
  readonly grid: SpectralGrid;
  /** Reflectance factors, row-major patch × band. */
  readonly spectra: ArrayLike<number>;
}

/**
 * How recipes hold to a colour in some lights: for each recipe ΔE00 in each light. Beside the colour's own spectrum that
 * is how far print and colour part (metamerism); without one, how far the print itself moves from how it looks in D50.
 * Each light has a model of its own; what they say of D50 is taken out, so that the models' errors are not shown as a
 * light's doing.
 * @param recipes device values, row-major × channel. @param printed their Lab in D50, row-major × 3.
 */
export function recipesUnder(
  { channels, device, grid, spectra }: SpectralChart,
  { recipes, printed }: { readonly recipes: ArrayLike<number>; readonly printed: ArrayLike<number> },
  lights: readonly SeenIn[],
  colour: SpectrumOn | undefined,
): Float64Array[] {
  const values = Float64Array.from(device);
  const chart = { grid, values: Float64Array.from(spectra) };
  const modelled = (seen: SeenIn): Float64Array =>
    labOf(chartModel(channels, values, coloursUnder(chart, seen))(recipes));
  const daylight: SeenIn = { light: tableIlluminant('D50'), observer: '2deg' };
  const inDaylight = modelled(daylight);
  const count = printed.length / 3;
  return lights.map((seen) => {
    const own = modelled(seen);
    const moved = own.map((value, i) => printed[i] + value - inDaylight[i]);
    return deltaE2000Rows(moved, besides(colour, seen, count) ?? Float64Array.from(printed));
  });
}

const labOf = (xyz: Float64Array): Float64Array => {
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, xyz);
  return xyz;
};

/** The colour as the light shows it, once for each recipe; undefined without its spectrum. */
function besides(colour: SpectrumOn | undefined, seen: SeenIn, count: number): Float64Array | undefined {
  if (colour === undefined) return undefined;
  const lab = labOf(coloursUnder({ grid: colour.grid, values: Float64Array.from(colour.values) }, seen));
  return Float64Array.from({ length: 3 * count }, (_, i) => lab[i % 3]);
}
