/** Units that a house tells lengths and screens in. */
export const UNITS = ['metric', 'inches'] as const;
export type Units = (typeof UNITS)[number];

export const MM_PER_INCH = 25.4;
const CM_PER_INCH = 2.54;

export const LENGTH_UNIT: Readonly<Record<Units, string>> = { metric: 'mm', inches: 'in' };
export const SCREEN_UNIT: Readonly<Record<Units, string>> = { metric: 'lines/cm', inches: 'lpi' };

/** A length in mm as a number of the house's unit. */
export function lengthIn(units: Units, mm: number): number {
  return units === 'metric' ? mm : mm / MM_PER_INCH;
}

/** A length that was typed in the house's unit, in mm. */
export function lengthMm(units: Units, value: number): number {
  return units === 'metric' ? value : value * MM_PER_INCH;
}

/** A screen of so many lines/cm as a number of the house's unit. */
export function screenIn(units: Units, perCm: number): number {
  return units === 'metric' ? perCm : perCm * CM_PER_INCH;
}

/** A screen that was typed in the house's unit, in lines/cm. */
export function screenPerCm(units: Units, value: number): number {
  return units === 'metric' ? value : value / CM_PER_INCH;
}
