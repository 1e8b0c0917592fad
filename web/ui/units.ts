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

/** A screen of lines/cm as it is told, without its unit. */
export const formatScreen = (perCm: number): string => String(Math.round(screenIn(units, perCm)));

/** A length that was typed, in whole mm; NaN where it is none. */
export const typedLength = (text: string): number => Math.round(lengthMm(units, numberOf(text)));

/** A screen that was typed, in whole lines/cm; NaN where it is none. */
export const typedScreen = (text: string): number => Math.round(screenPerCm(units, numberOf(text)));
