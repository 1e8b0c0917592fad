import { LENGTH_UNIT, lengthIn, lengthMm, SCREEN_UNIT, screenIn, screenPerCm } from '@melto/core/units/units';
import type { Units } from '@melto/core/units/units';
import { numberOf } from './numberOf';

/** The house's units, as the page was told them; the same on server and client. */
let units: Units = 'metric';

/** Told once by the frame of all pages, before anything of them is drawn. */
export function tellHouseUnits(own: Units): void {
  units = own;
}

export const lengthUnit = (): string => LENGTH_UNIT[units];
export const screenUnit = (): string => SCREEN_UNIT[units];

/** A length of mm as it is told, without its unit: no more decimals than it has, to a tenth of a mm or 0.01 in. */
export function formatLength(mm: number, digits = units === 'metric' ? 1 : 2): string {
  return Number(lengthIn(units, mm).toFixed(digits)).toLocaleString('en-GB');
}

/** A length of mm as it is typed: without the commas of thousands. */
export const lengthText = (mm: number): string => formatLength(mm).replaceAll(',', '');

/** A screen of lines/cm as it is told, without its unit. */
export const formatScreen = (perCm: number): string => String(Math.round(screenIn(units, perCm)));

/** A length that was typed, in mm: as it is, or to the whole mm nearest to inches; NaN where it is none. */
export const typedLength = (text: string): number => nearest(lengthMm(units, numberOf(text)));

/** A screen that was typed, in lines/cm, in the same way. */
export const typedScreen = (text: string): number => nearest(screenPerCm(units, numberOf(text)));

// What is typed in the unit that is kept is not changed without a word.
const nearest = (value: number): number => (units === 'metric' ? value : Math.round(value));
