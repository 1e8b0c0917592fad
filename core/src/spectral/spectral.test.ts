import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import { ILLUMINANT_TABLES } from './data/cieTables.ts';
import {
  blackBodyIlluminant,
  daylightIlluminant,
  measuredIlluminant,
  TABLE_GRID,
  tableIlluminant,
} from './illuminant.ts';
import type { IlluminantName } from './illuminant.ts';
import { lagrangeResample } from './lagrangeResample.ts';
import { GRID_380_730_10, gridWavelengths } from './spectralGrid.ts';
import { spectraRows } from './spectraRows.ts';
import { spectrumLab } from './spectrumLab.ts';
import { spectraToXyz, spectrumToXyz } from './spectrumToXyz.ts';
import { createXyzWeights, illuminantWhite } from './xyzWeights.ts';

/** White points of the reference tables: 2° and 10°. */
const WHITES: Readonly<Record<IlluminantName, readonly (readonly number[])[]>> = {
  A: [
    [109.849, 100, 35.582],
    [111.144, 100, 35.2],
  ],
  D50: [
    [96.42, 100, 82.512],
    [96.72, 100, 81.427],
  ],
  D65: [
    [95.043, 100, 108.88],
    [94.812, 100, 107.324],
  ],
  F2: [
    [99.186, 100, 67.394],
    [103.28, 100, 69.03],
  ],
  F8: [
    [96.427, 100, 82.421],
    [97.119, 100, 81.186],
  ],
  F11: [
    [100.961, 100, 64.351],
    [103.864, 100, 65.609],
  ],
};

describe('white points', () => {
  it.each(Object.keys(WHITES) as IlluminantName[])('of %s agree with the reference to 0.001', (name) => {
    (['2deg', '10deg'] as const).forEach((observer, i) => {
      const white = illuminantWhite(tableIlluminant(name), observer);
      white.forEach((value, axis) => expect(Math.abs(value - WHITES[name][i][axis])).toBeLessThan(0.0011));
    });
  });

  it('makes a perfect reflector neutral to 1e-6 on every grid', () => {
    for (const [startNm, stepNm, count] of [
      [380, 10, 36],
      [400, 10, 31],
      [380, 5, 71],
      [380, 20, 18],
    ]) {
      const weights = createXyzWeights({ startNm, stepNm, count }, tableIlluminant('D50'), '2deg');
      const lab = xyzToLab(spectrumToXyz(weights, new Float64Array(count).fill(1)), WHITE_D50_MEASURED);
      expect(lab[0]).toBeCloseTo(100, 9);
      expect(Math.abs(lab[1])).toBeLessThan(1e-6);
      expect(Math.abs(lab[2])).toBeLessThan(1e-6);
    }
  });
});

describe('illuminants', () => {
  it('makes daylight and black bodies near the tables they are defined by', () => {
    const d65 = daylightIlluminant(6503.6);
    const a = blackBodyIlluminant(2848 * (1.435 / 1.435));
    d65.power.forEach((power, i) => expect(Math.abs(power - ILLUMINANT_TABLES.D65[i])).toBeLessThan(0.3));
    a.power.forEach((power, i) => expect(Math.abs(power - ILLUMINANT_TABLES.A[i])).toBeLessThan(0.8));
    expect(() => daylightIlluminant(3000)).toThrow(RangeError);
  });

  it('takes a measured source on its own grid', () => {
    const own = measuredIlluminant('lamp', TABLE_GRID, ILLUMINANT_TABLES.F8);
    expect(illuminantWhite(own, '2deg')[0]).toBeCloseTo(96.427, 2);
  });
});

describe('interpolation', () => {
  it('reproduces cubics exactly inside and holds the ends outside', () => {
    const grid = { startNm: 400, stepNm: 10, count: 31 };
    const cubic = (nm: number): number => 1e-7 * (nm - 500) ** 3 + 0.002 * nm;
    const out = lagrangeResample(grid, gridWavelengths(grid).map(cubic), {
      startNm: 390,
      stepNm: 5,
      count: 60,
    });
    expect(out[0]).toBe(cubic(400));
    for (let i = 6; i < 56; i++) expect(out[i]).toBeCloseTo(cubic(390 + 5 * i), 9);
  });

  it('beats linear interpolation: 10 nm data agree with 5 nm data within 0.02 ΔE', () => {
    const reflectance = (nm: number): number => 0.05 + 0.8 / (1 + Math.exp(-(nm - 560) / 9));
    const five = { startNm: 380, stepNm: 5, count: 71 };
    const lab = (grid: typeof five) => spectrumLab(grid, gridWavelengths(grid).map(reflectance));
    expect(deltaEAb(lab(five), lab(GRID_380_730_10))).toBeLessThan(0.02);
  });

  it('has a batch form that agrees, and refuses a wrong number of bands', () => {
    const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D65'), '10deg');
    const spectra = Float64Array.from({ length: 72 }, (_, i) => 0.1 + ((i * 37) % 50) / 80);
    const out = new Float64Array(6);
    spectraToXyz(weights, spectra, out);
    expect([...out.subarray(3)]).toEqual([...spectrumToXyz(weights, spectra.subarray(36))]);
    expect(() => spectrumToXyz(weights, new Float64Array(31))).toThrow(RangeError);
  });

  it('sees a grey of (66/116)³ as L* 50 for D50 and 2°, and refuses bands that are missing', () => {
    const grey = (bands: number) => new Float64Array(bands).fill((66 / 116) ** 3);
    const [lightness, a, b] = spectrumLab(GRID_380_730_10, grey(36));
    expect(lightness).toBeCloseTo(50, 3);
    expect(Math.hypot(a, b)).toBeLessThan(0.01);
    expect(() => spectrumLab(GRID_380_730_10, grey(35))).toThrow(RangeError);
  });

  it('are cut into one list per patch', () => {
    expect(spectraRows(Float64Array.of(1, 2, 3, 4, 5, 6), 3)).toEqual([
      [1, 2, 3],
      [4, 5, 6],
    ]);
    expect(spectraRows(new Float64Array(0), 3)).toEqual([]);
  });
});
