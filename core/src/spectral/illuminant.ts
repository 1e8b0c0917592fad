import {
  DAYLIGHT_COMPONENTS,
  ILLUMINANT_TABLES,
  TABLE_COUNT,
  TABLE_START_NM,
  TABLE_STEP_NM,
} from './data/cieTables.ts';
import { lagrangeResample } from './lagrangeResample.ts';
import type { SpectralGrid } from './spectralGrid.ts';

export type IlluminantName = keyof typeof ILLUMINANT_TABLES;

/** Relative spectral power on the 380-780 nm, 5 nm grid of the tables. */
export interface Illuminant {
  readonly name: string;
  readonly power: Float64Array;
}

export const TABLE_GRID: SpectralGrid = {
  startNm: TABLE_START_NM,
  stepNm: TABLE_STEP_NM,
  count: TABLE_COUNT,
};

export function tableIlluminant(name: IlluminantName): Illuminant {
  return { name, power: Float64Array.from(ILLUMINANT_TABLES[name]) };
}

/** CIE daylight of a correlated colour temperature, 4000-25000 K (CIE 15, unrounded M1 and M2). */
export function daylightIlluminant(kelvin: number): Illuminant {
  if (!(kelvin >= 4000 && kelvin <= 25000))
    throw new RangeError(`daylight of ${kelvin} K, expected 4000 to 25000`);
  const t = 1000 / kelvin;
  const x =
    kelvin <= 7000
      ? 0.244063 + 0.09911 * t + 2.9678 * t * t - 4.607 * t * t * t
      : 0.23704 + 0.24748 * t + 1.9018 * t * t - 2.0064 * t * t * t;
  const y = -3 * x * x + 2.87 * x - 0.275;
  const scale = 0.0241 + 0.2562 * x - 0.7341 * y;
  const m1 = (-1.3515 - 1.7703 * x + 5.9114 * y) / scale;
  const m2 = (0.03 - 31.4424 * x + 30.0717 * y) / scale;
  const { S0, S1, S2 } = DAYLIGHT_COMPONENTS;
  return {
    name: `daylight ${kelvin} K`,
    power: Float64Array.from(S0, (s0, i) => s0 + m1 * S1[i] + m2 * S2[i]),
  };
}

/** The second radiation constant as it is known now, nm K. */
export const SECOND_RADIATION_CONSTANT = 1.4388e7;

/** Nominal temperatures of daylights were given for c2 = 1.438e-2 m K; by its present value they are this much more. */
export const nominalDaylight = (kelvin: number): Illuminant =>
  daylightIlluminant((kelvin * SECOND_RADIATION_CONSTANT) / 1.438e7);

/**
 * Black body by Planck's law, 100 at 560 nm (CIE 15).
 * @param c2 second radiation constant, nm K: 1.435e7 as illuminant A was defined, where nothing else is given.
 */
export function blackBodyIlluminant(kelvin: number, c2 = 1.435e7): Illuminant {
  if (!(kelvin >= 500 && kelvin <= 100000))
    throw new RangeError(`black body of ${kelvin} K, expected 500 to 100000`);
  const planck = (nm: number): number => Math.pow(nm, -5) / Math.expm1(c2 / (nm * kelvin));
  const at560 = planck(560);
  return {
    name: `black body ${kelvin} K`,
    power: Float64Array.from(
      { length: TABLE_COUNT },
      (_, i) => (100 * planck(TABLE_START_NM + i * TABLE_STEP_NM)) / at560,
    ),
  };
}

/** A measured light source, resampled to the grid of the tables; outside its range the end values hold. */
export function measuredIlluminant(name: string, grid: SpectralGrid, power: ArrayLike<number>): Illuminant {
  return { name, power: lagrangeResample(grid, power, TABLE_GRID) };
}
