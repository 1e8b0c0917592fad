import type { PatchSet, PatchSpectra } from '../cgats/patchSet.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { sameGrid } from '../spectral/spectralGrid.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import { xyOf } from './chromaticity.ts';

/** Share of the ultraviolet that M1 measures with (that of D50) which acts in a light: none to somewhat more. */
export const MOST_UV = 1.2;

/** One sheet read with ultraviolet and without: the same patches in the same order. */
export interface BrightenerPair {
  readonly grid: SpectralGrid;
  /** Row-major patch × band. */
  readonly without: Float64Array;
  /** What ultraviolet adds at the share 1. */
  readonly added: Float64Array;
}

/** Lays a reading with ultraviolet (M1) and one without (M2) of the same sheet on each other. */
export function brightenerPair(withUv: PatchSet, without: PatchSet): Result<BrightenerPair> {
  const refuse = (expected: string, found: string): Result<BrightenerPair> =>
    failure({ code: 'light.pair', expected, found });
  if (withUv.spectra === undefined || without.spectra === undefined)
    return refuse('spectra in both readings', 'colours only');
  if (!sameGrid(withUv.spectra.grid, without.spectra.grid))
    return refuse('the same wavelengths in both readings', 'others');
  if (withUv.ids.length !== without.ids.length)
    return refuse(
      `${withUv.ids.length} patches in both`,
      `${without.ids.length} in the one without ultraviolet`,
    );
  const other = firstOther(withUv, without);
  if (other !== undefined)
    return refuse('the same patches in the same order', `others from patch ${other + 1} on`);
  const { grid, values } = withUv.spectra;
  const dark = without.spectra.values;
  return success({ grid, without: dark, added: values.map((value, i) => value - dark[i]) });
}

/** The first patch whose device values differ; undefined where none does, or where they are not told. */
function firstOther({ device: a, ids }: PatchSet, { device: b }: PatchSet): number | undefined {
  if (a === undefined || b === undefined) return undefined;
  const value = a.findIndex((own, i) => Math.abs(own - b[i]) > 1e-3);
  return value < 0 ? undefined : Math.floor(value / (a.length / ids.length));
}

/** Spectra as a light shows them in which a share of the ultraviolet of M1 acts. */
export function spectraAtUv({ grid, without, added }: BrightenerPair, share: number): PatchSpectra {
  if (!(share >= 0 && share <= MOST_UV))
    throw new RangeError(`a share of ${share}, expected 0 to ${MOST_UV}`);
  return { grid, values: without.map((value, i) => value + share * added[i]) };
}

/** What ultraviolet does to a bare paper. */
export interface Brightening {
  /** ΔE00 between the paper with ultraviolet and without, D50, 2°. */
  readonly deltaE: number;
  /** b* with ultraviolet less b* without. */
  readonly b: number;
  /** CIE whiteness and tint (D65, 10°) with ultraviolet and without; null where the formulas do not hold. */
  readonly whiteness: readonly [CieWhiteness | null, CieWhiteness | null];
}

export interface CieWhiteness {
  readonly whiteness: number;
  readonly tint: number;
}

/** Brightening of a paper from its two spectra. */
export function brightening(
  grid: SpectralGrid,
  withUv: ArrayLike<number>,
  without: ArrayLike<number>,
): Brightening {
  const weights = createXyzWeights(grid, tableIlluminant('D50'), '2deg');
  const lab = (spectrum: ArrayLike<number>) => xyzToLab(spectrumToXyz(weights, spectrum), WHITE_D50_MEASURED);
  const [lit, dark] = [lab(withUv), lab(without)];
  return {
    deltaE: deltaE2000(dark, lit),
    b: lit[2] - dark[2],
    whiteness: [cieWhiteness(grid, withUv), cieWhiteness(grid, without)],
  };
}

/** White of the formulas: D65 and the 10° observer. */
const WHITE_XY = [0.3138, 0.331] as const;

/** CIE whiteness and tint (CIE 15); null outside 40 < W < 5 Y − 280, −4 < T < 2, where they say nothing. */
export function cieWhiteness(grid: SpectralGrid, spectrum: ArrayLike<number>): CieWhiteness | null {
  const xyz = spectrumToXyz(createXyzWeights(grid, tableIlluminant('D65'), '10deg'), spectrum);
  const [x, y] = xyOf(xyz);
  const whiteness = xyz[1] + 800 * (WHITE_XY[0] - x) + 1700 * (WHITE_XY[1] - y);
  const tint = 900 * (WHITE_XY[0] - x) - 650 * (WHITE_XY[1] - y);
  return whiteness > 40 && whiteness < 5 * xyz[1] - 280 && tint > -4 && tint < 2 ? { whiteness, tint } : null;
}
