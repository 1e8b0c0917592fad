import { beforeAll, describe, expect, it } from 'vitest';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import type { Lab } from '@melto/core/colour/lab';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { chartInLights } from '@melto/core/light/chartInLights';
import { coloursUnder, labsUnder } from '@melto/core/light/colourUnder';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { recipesOf } from '@melto/core/lists/recipes';
import { recipesUnder } from '@melto/core/lists/recipesUnder';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';

const TOTAL_INK = 3;
const osprey = simulatedDevice('osprey');
const spectraOf = (device: ArrayLike<number>): Float64Array =>
  deviceTruthSpectra(osprey, 'lantern-gloss-150', '175 lpi', device);
const D50: SeenIn = { light: tableIlluminant('D50'), observer: '2deg' };
const labIn = (values: Float64Array, seen: SeenIn): Float64Array =>
  labsUnder({ grid: GRID_380_730_10, values }, seen);

let profile: IccProfile;
let device: Float64Array;
let spectra: Float64Array;
beforeAll(() => {
  ({ device } = makeCmykChart(220, 3, TOTAL_INK));
  spectra = spectraOf(device);
  const xyz = coloursUnder({ grid: GRID_380_730_10, values: spectra }, D50);
  const paper = coloursUnder({ grid: GRID_380_730_10, values: spectraOf([0, 0, 0, 0]) }, D50);
  const { profile: built } = buildInkProfile(fitInkModel(device, 4, xyz), {
    ...{ version: 2, tableSize: 'small', description: 'press', copyright: '', createdMs: 0 },
    paperXyz: [paper[0], paper[1], paper[2]],
    separation: separationOf('medium', TOTAL_INK),
  });
  profile = unwrap(readIcc(writeIcc(built)));
});

describe('recipes of one colour', () => {
  it('go from little black to much, all of them on it, within the total ink', () => {
    const grey: Lab = [45, 1, 2];
    const recipes = unwrap(recipesOf(profile, grey));
    const blacks = recipes.map(({ device: inks }) => inks[3]);
    expect(blacks[0]).toBeLessThan(0.1);
    expect(blacks.at(-1)).toBeGreaterThan(0.45);
    expect(blacks).toEqual([...blacks].sort((a, b) => a - b));
    // As the press prints them, which is not what the search went by.
    const printed = labIn(spectraOf(recipes.flatMap(({ device: inks }) => [...inks])), D50);
    for (const [i, { device: inks }] of recipes.entries()) {
      const [off] = deltaE2000Rows([...grey], printed.subarray(3 * i, 3 * i + 3));
      expect(off, `black ${inks[3]}`).toBeLessThan(1);
      expect(inks.reduce((sum, value) => sum + value, 0)).toBeLessThan(TOTAL_INK + 0.01);
    }
  });

  it('are few where black would dull the colour', () => {
    const recipes = unwrap(recipesOf(profile, [88, -5, 88]));
    expect(recipes.length).toBeLessThanOrEqual(2);
    expect(recipes[0].device[3]).toBe(0);
  });
});

describe('recipes in other lights', () => {
  const lights: SeenIn[] = [
    { light: tableIlluminant('A'), observer: '2deg' },
    { light: tableIlluminant('F11'), observer: '2deg' },
  ];

  it('part from a colour as the press parts from it, worst and best in the right place', () => {
    const grey: Lab = [45, 1, 2];
    const recipes = unwrap(recipesOf(profile, grey));
    const inks = recipes.flatMap((one) => [...one.device]);
    // The sample is a print with much black: recipes with much black hold to it, others do not.
    const sample = spectraOf(recipes[recipes.length - 1].device);
    const found = recipesUnder(
      chartInLights({ channels: 4, device, grid: GRID_380_730_10, spectra }),
      { recipes: inks, printed: recipes.flatMap(({ printed }) => [...printed]) },
      lights,
      { grid: GRID_380_730_10, values: sample },
    );
    lights.forEach((light, i) => {
      const real = labIn(spectraOf(inks), light);
      const asked = labIn(sample, light);
      const truth = deltaE2000Rows(
        real,
        Float64Array.from({ length: real.length }, (_, at) => asked[at % 3]),
      );
      for (const [at, value] of found[i].entries())
        expect(Math.abs(value - truth[at]), `light ${i}, recipe ${at}`).toBeLessThan(0.8);
      expect(found[i].at(-1)).toBeLessThan(found[i][0]);
    });
  });

  it('tell how far the print itself moves where the colour has no spectrum: nowhere in D50', () => {
    const recipes = unwrap(recipesOf(profile, [60, 20, 10])).slice(0, 2);
    const chart = chartInLights({ channels: 4, device, grid: GRID_380_730_10, spectra });
    const rows = {
      recipes: recipes.flatMap((one) => [...one.device]),
      printed: recipes.flatMap(({ printed }) => [...printed]),
    };
    const [daylight, tungsten] = recipesUnder(chart, rows, [D50, lights[0]], undefined);
    for (const value of daylight) expect(value).toBeLessThan(1e-9);
    for (const value of tungsten) expect(value).toBeGreaterThan(0.3);
  });
});
