import { afterEach, describe, expect, it } from 'vitest';
import {
  formatLength,
  formatScreen,
  lengthUnit,
  screenUnit,
  tellHouseUnits,
  typedLength,
  typedScreen,
} from './units';

afterEach(() => tellHouseUnits('metric'));

describe('lengths and screens', () => {
  it('are told and typed in mm and lines/cm', () => {
    expect([lengthUnit(), screenUnit()]).toEqual(['mm', 'lines/cm']);
    expect([formatLength(7.5), formatLength(1620), formatLength(12.75)]).toEqual(['7.5', '1,620', '12.8']);
    expect([typedLength('610'), typedLength('610,4'), typedLength('x')]).toEqual([610, 610.4, NaN]);
    expect([formatScreen(69), typedScreen('69')]).toEqual(['69', 69]);
  });

  it('are told and typed in inches and lines per inch, and kept in whole mm and lines/cm', () => {
    tellHouseUnits('inches');
    expect([lengthUnit(), screenUnit()]).toEqual(['in', 'lpi']);
    // 24 × 36 in is 609.6 × 914.4 mm.
    expect([typedLength('24'), typedLength('36')]).toEqual([610, 914]);
    expect([formatLength(610), formatLength(914.4)]).toEqual(['24.02', '36']);
    expect([formatScreen(69), typedScreen('175')]).toEqual(['175', 69]);
    // What is told is typed again without a change.
    for (const mm of [90, 297, 610, 914, 1620])
      expect(typedLength(formatLength(mm).replaceAll(',', ''))).toBe(mm);
    for (const perCm of [4, 20, 34, 69, 200]) expect(typedScreen(formatScreen(perCm))).toBe(perCm);
  });
});
