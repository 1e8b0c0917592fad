import { goldenSection } from '../numerics/goldenSection.ts';
import type { Xyz } from '../colour/xyz.ts';
import { blackBodyIlluminant, SECOND_RADIATION_CONSTANT } from '../spectral/illuminant.ts';
import { illuminantWhite } from '../spectral/xyzWeights.ts';
import { distanceOf, uv1960Of } from './chromaticity.ts';
import type { Chromaticity } from './chromaticity.ts';

/** How near a light is to a black body. */
export interface CorrelatedTemperature {
  /** Correlated colour temperature, K. */
  readonly kelvin: number;
  /** Signed distance from the black bodies in CIE 1960 u, v: above zero on the green side. */
  readonly duv: number;
}

const LEAST_KELVIN = 1000;
const MOST_KELVIN = 50_000;
/** Farther from the black bodies, a temperature says nothing of a light (CIE 15). */
export const MOST_DUV = 0.05;

/** Chromaticity (1960) of a black body, 2° observer. */
export function blackBodyUv(kelvin: number): Chromaticity {
  return uv1960Of(illuminantWhite(blackBodyIlluminant(kelvin, SECOND_RADIATION_CONSTANT), '2deg'));
}

/** Of ten mired these leave less than can be told. */
const ROUNDS = 40;

/**
 * Correlated colour temperature and Duv of a white under the 2° observer: the nearest black body in CIE 1960 u, v.
 * @returns undefined for colours that are no white: farther than 0.05 from every black body of 1000 to 50,000 K.
 */
export function correlatedTemperature(white: Xyz): CorrelatedTemperature | undefined {
  const own = uv1960Of(white);
  if (!own.every(Number.isFinite)) return undefined;
  const away = (mired: number): number => distanceOf(own, blackBodyUv(1e6 / mired));
  // The distance has one valley near the locus; a coarse walk finds it, a golden section its floor.
  let best = 1e6 / MOST_KELVIN;
  let least = away(best);
  for (let mired = best + 5; mired <= 1e6 / LEAST_KELVIN; mired += 5) {
    const distance = away(mired);
    if (distance < least) [best, least] = [mired, distance];
  }
  const mired = goldenSection(
    away,
    Math.max(best - 5, 1e6 / MOST_KELVIN),
    Math.min(best + 5, 1e6 / LEAST_KELVIN),
    ROUNDS,
  );
  const distance = away(mired);
  if (distance > MOST_DUV) return undefined;
  const at = blackBodyUv(1e6 / mired);
  return { kelvin: 1e6 / mired, duv: own[1] >= at[1] ? distance : -distance };
}
