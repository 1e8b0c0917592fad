import { describe, expect, it } from 'vitest';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { densities, neutralDensity, visualDensity } from './density.ts';

describe('density', () => {
  it('of a flat 10 % reflector is 1 through every filter and status', () => {
    const grey = new Float64Array(36).fill(0.1);
    for (const status of ['T', 'E'] as const)
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

  it('of no light at all is finite', () => {
    expect(visualDensity(GRID_380_730_10, new Float64Array(36))).toBe(5);
    expect(neutralDensity(10)).toBeCloseTo(1, 12);
  });
});
