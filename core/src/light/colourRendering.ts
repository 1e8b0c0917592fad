import {
  blackBodyIlluminant,
  daylightIlluminant,
  SECOND_RADIATION_CONSTANT,
  TABLE_GRID,
} from '../spectral/illuminant.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights, illuminantWhite } from '../spectral/xyzWeights.ts';
import { uv1960Of } from './chromaticity.ts';
import type { Chromaticity } from './chromaticity.ts';
import { correlatedTemperature } from './correlatedTemperature.ts';
import { TEST_COLOURS } from './data/testColours.ts';

/** Colour rendering by CIE 13.3. */
export interface ColourRendering {
  /** General index Ra: the mean of the first eight. 100 at best, below zero where colours are much changed. */
  readonly general: number;
  /** Special indices R1 to R14. */
  readonly special: readonly number[];
}

/** Samples that the general index is the mean of. */
const GENERAL = 8;
/** From here on the reference is a phase of daylight, below it a black body. */
const DAYLIGHT_FROM_KELVIN = 5000;
/** A light that differs more from its reference has no index (CIE 13.3, in 1960 u, v). */
export const MOST_RENDERING_DUV = 5.4e-3;

/**
 * Colour rendering of a light against the black body or the daylight of its own temperature.
 * @returns undefined where it is too far from white for the index to mean anything.
 */
export function colourRendering(light: Illuminant): ColourRendering | undefined {
  const temperature = correlatedTemperature(illuminantWhite(light, '2deg'));
  if (temperature === undefined || Math.abs(temperature.duv) > MOST_RENDERING_DUV) return undefined;
  if (temperature.kelvin > 25_000) return undefined;
  const reference = referenceOf(temperature.kelvin);
  const [tested, standard] = [testColoursUnder(light), testColoursUnder(reference)];
  const special = TEST_COLOURS.map((_, i) => {
    const seen = uniform(
      adapted(tested.samples[i].uv, tested.white, standard.white),
      standard.white,
      tested.samples[i].y,
    );
    const wanted = uniform(standard.samples[i].uv, standard.white, standard.samples[i].y);
    return 100 - 4.6 * Math.hypot(seen[0] - wanted[0], seen[1] - wanted[1], seen[2] - wanted[2]);
  });
  return { general: special.slice(0, GENERAL).reduce((sum, index) => sum + index, 0) / GENERAL, special };
}

function referenceOf(kelvin: number): Illuminant {
  return kelvin >= DAYLIGHT_FROM_KELVIN
    ? daylightIlluminant(kelvin)
    : blackBodyIlluminant(kelvin, SECOND_RADIATION_CONSTANT);
}

interface Seen {
  readonly white: Chromaticity;
  readonly samples: readonly { readonly uv: Chromaticity; readonly y: number }[];
}

/** The test colours under a light, Y of its white 100. */
function testColoursUnder(light: Illuminant): Seen {
  const weights = createXyzWeights(TABLE_GRID, light, '2deg');
  return {
    white: uv1960Of(weights.white),
    samples: TEST_COLOURS.map((reflectance) => {
      const xyz = spectrumToXyz(weights, reflectance);
      return { uv: uv1960Of(xyz), y: xyz[1] };
    }),
  };
}

/** Von Kries adaptation in 1960 u, v, as CIE 13.3 writes it. */
function adapted(uv: Chromaticity, from: Chromaticity, to: Chromaticity): Chromaticity {
  const c = ([u, v]: Chromaticity): number => (4 - u - 10 * v) / v;
  const d = ([u, v]: Chromaticity): number => (1.708 * v + 0.404 - 1.481 * u) / v;
  const ck = (c(to) / c(from)) * c(uv);
  const dk = (d(to) / d(from)) * d(uv);
  const below = 16.518 + 1.481 * ck - dk;
  return [(10.872 + 0.404 * ck - 4 * dk) / below, 5.52 / below];
}

/** CIE 1964 U*V*W*. */
function uniform([u, v]: Chromaticity, white: Chromaticity, y: number): readonly [number, number, number] {
  const w = 25 * Math.cbrt(y) - 17;
  return [13 * w * (u - white[0]), 13 * w * (v - white[1]), w];
}
