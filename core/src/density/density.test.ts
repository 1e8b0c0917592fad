import { describe, expect, it } from 'vitest';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { STATUS_E, STATUS_T } from './data/densityProducts.ts';
import { densities, DENSITY_STATUSES, neutralDensity, visualDensity } from './density.ts';

describe('density', () => {
  it('of a flat 10 % reflector is 1 through every filter and status', () => {
    const grey = new Float64Array(36).fill(0.1);
    for (const status of DENSITY_STATUSES)
      for (const value of Object.values(densities(GRID_380_730_10, grey, status)))
        expect(value).toBeCloseTo(1, 9);
  });

  it('of cyan is high through red only, and status E differs from T in blue only', () => {
    const cyan = gridWavelengths(GRID_380_730_10).map((nm) => (nm > 580 ? 0.03 : 0.7));
    const e = densities(GRID_380_730_10, cyan, 'E');
    const t = densities(GRID_380_730_10, cyan, 'T');
    expect(e.red).toBeGreaterThan(1.2);
    expect(e.blue).toBeLessThan(0.2);
    expect(t.red).toBe(e.red);
    const yellow = gridWavelengths(GRID_380_730_10).map((nm) => (nm < 490 ? 0.05 + (nm - 380) / 400 : 0.85));
    expect(densities(GRID_380_730_10, yellow, 'T').blue).not.toBeCloseTo(
      densities(GRID_380_730_10, yellow, 'E').blue,
      2,
    );
  });

  it('of status I is that of narrow bands, and of status A lies where its dyes do', () => {
    // Dark up to 480 nm, bright from 500 nm: the tail of the wide filters sees the bright part, the narrow bands do not.
    const yellow = gridWavelengths(GRID_380_730_10).map((nm) => (nm <= 480 ? 0.05 : 0.85));
    const blueBy = (status: 'E' | 'T' | 'A' | 'I') => densities(GRID_380_730_10, yellow, status).blue;
    expect(blueBy('I')).toBeCloseTo(-Math.log10(0.05), 6);
    expect(blueBy('A')).toBeCloseTo(-Math.log10(0.05), 2);
    expect(blueBy('A')).toBeGreaterThan(blueBy('E'));
    expect(blueBy('E')).toBeGreaterThan(blueBy('T'));
    // A slope over the band of 535 nm is read at its middle.
    const slope = gridWavelengths(GRID_380_730_10).map((nm) => nm / 1000);
    expect(densities(GRID_380_730_10, slope, 'I').green).toBeCloseTo(-Math.log10(0.535), 9);
    expect(densities(GRID_380_730_10, slope, 'I').red).toBeCloseTo(-Math.log10(0.625), 9);
  });

  it('of a yellow solid is higher in E than in T by what presses know, its filter peaking 20 nm shorter', () => {
    // A process yellow: dark to 470 nm, half way up at 497 nm, 1 % from the surface.
    const solid = (density: number): number[] =>
      gridWavelengths(GRID_380_730_10).map(
        (nm) =>
          0.82 *
          (0.012 +
            0.988 *
              10 ** (-(density / (1 + Math.exp((nm - 497) / 9))) * (1 - 0.12 * ((nm - 440) / 60) ** 2))),
      );
    for (const density of [1.6, 1.8]) {
      const { blue } = densities(GRID_380_730_10, solid(density), 'E');
      const more = blue - densities(GRID_380_730_10, solid(density), 'T').blue;
      expect(more).toBeGreaterThan(0.28);
      expect(more).toBeLessThan(0.42);
    }
    const peak = (product: { startNm: number; log10Product: readonly number[] }): number =>
      product.startNm + 10 * product.log10Product.indexOf(5);
    expect(peak(STATUS_T.blue) - peak(STATUS_E.blue)).toBe(20);
    const logs = STATUS_E.blue.log10Product;
    for (let i = 2; i < 13; i++) expect(logs[i + 1] - 2 * logs[i] + logs[i - 1]).toBeLessThan(0);
  });

  it('of no light at all is finite', () => {
    expect(visualDensity(GRID_380_730_10, new Float64Array(36))).toBe(5);
    expect(neutralDensity(10)).toBeCloseTo(1, 12);
  });
});
