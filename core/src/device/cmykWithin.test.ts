import { describe, expect, it } from 'vitest';
import { cmykPlaces, cmykWithin, withinProcess } from './cmykWithin.ts';
import { CMYK, inkProcess } from './process.ts';

const SIX = inkProcess(['O', 'K', 'C', 'Y', 'M', 'G']);

describe('C, M, Y and K among other inks', () => {
  it('go to the places of their names and come back', () => {
    const rows = Float64Array.from([0.1, 0.2, 0.3, 0.4, 1, 0, 0, 0]);
    const six = withinProcess(SIX, rows);
    expect([...six]).toEqual([0, 0.4, 0.1, 0.3, 0.2, 0, 0, 0, 1, 0, 0, 0]);
    expect([...cmykWithin(SIX, six)]).toEqual([...rows]);
    expect(withinProcess(CMYK, rows)).toBe(rows);
    expect(cmykWithin(CMYK, rows)).toBe(rows);
  });

  it('are not told of patches on which another ink prints', () => {
    const rows = Float64Array.from([0.01, 0.4, 0, 0, 0, 0, 0, 0.4, 0, 0, 0, 0]);
    expect([...cmykWithin(SIX, rows)]).toEqual([NaN, NaN, NaN, NaN, 0, 0, 0, 0.4]);
  });

  it('are all needed', () => {
    expect(() => cmykPlaces(inkProcess(['C', 'M', 'Y', 'O']))).toThrow('CMYO has not all of C, M, Y and K');
  });
});
