import type { Xyz } from '../colour/xyz.ts';
import { CMF_1931_2DEG, TABLE_COUNT, TABLE_START_NM, TABLE_STEP_NM } from '../spectral/data/cieTables.ts';
import { distanceOf, uv1960Of } from './chromaticity.ts';
import type { Chromaticity } from './chromaticity.ts';

/** How near a light is to a black body. */
export interface CorrelatedTemperature {
  /** Correlated colour temperature, K. */
  readonly kelvin: number;
  /** Signed distance from the black bodies in CIE 1960 u, v: above zero on the green side. */
  readonly duv: number;
}

const SECOND_RADIATION_CONSTANT = 1.4388e7; // nm K, as CIE 15 takes it for temperatures of light
const LEAST_KELVIN = 1000;
const MOST_KELVIN = 50_000;
/** Farther from the black bodies, a temperature says nothing of a light (CIE 15). */
export const MOST_DUV = 0.05;

/** Chromaticity (1960) of a black body, 2° observer. */
export function blackBodyUv(kelvin: number): Chromaticity {
  const xyz = [0, 0, 0];
  for (let i = 0; i < TABLE_COUNT; i++) {
    const nm = TABLE_START_NM + i * TABLE_STEP_NM;
    // Scaled to stay in range at low temperatures; only the proportions count.
    const power = Math.pow(nm / 560, -5) / Math.expm1(SECOND_RADIATION_CONSTANT / (nm * kelvin));
    xyz[0] += power * CMF_1931_2DEG.x[i];
    xyz[1] += power * CMF_1931_2DEG.y[i];
    xyz[2] += power * CMF_1931_2DEG.z[i];
  }
  return uv1960Of([xyz[0], xyz[1], xyz[2]]);
}

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
  for (let mired = best; mired <= 1e6 / LEAST_KELVIN; mired += 5) if (away(mired) < away(best)) best = mired;
  const mired = goldenSection(
    away,
    Math.max(best - 5, 1e6 / MOST_KELVIN),
    Math.min(best + 5, 1e6 / LEAST_KELVIN),
  );
  const distance = away(mired);
  if (distance > MOST_DUV) return undefined;
  const at = blackBodyUv(1e6 / mired);
  return { kelvin: 1e6 / mired, duv: own[1] >= at[1] ? distance : -distance };
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

function goldenSection(f: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  for (let i = 0; i < 40; i++) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  return (a + b) / 2;
}
