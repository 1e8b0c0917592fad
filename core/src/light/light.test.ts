import { describe, expect, it } from 'vitest';
import {
  daylightIlluminant,
  measuredIlluminant,
  TABLE_GRID,
  tableIlluminant,
} from '../spectral/illuminant.ts';
import type { Illuminant, IlluminantName } from '../spectral/illuminant.ts';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { illuminantWhite } from '../spectral/xyzWeights.ts';
import { blackBodyUv, correlatedTemperature } from './correlatedTemperature.ts';
import { colourRendering, MOST_RENDERING_DUV } from './colourRendering.ts';
import { adaptationOf, coloursUnder } from './colourUnder.ts';
import { describeLight, uvShare } from './describeLight.ts';
import { metamerism } from './metamerism.ts';

const white = (name: IlluminantName) => illuminantWhite(tableIlluminant(name), '2deg');

describe('correlated colour temperature', () => {
  // CIE 15: to the digits that are printed there; of F2 to 10 K, whose printed chromaticity itself has 4225 K.
  it.each([
    ['A', 2856, 1, 0],
    ['D50', 5000, 10, 0.0032],
    ['D65', 6504, 1, 0.0032],
    ['F2', 4225, 5, 0.0018],
    ['F8', 5000, 10, 0.0032],
    ['F11', 4000, 10, 0],
  ] as const)('of %s is as published', (name, kelvin, digit, duv) => {
    const found = correlatedTemperature(white(name));
    expect(Math.round((found?.kelvin ?? 0) / digit) * digit).toBe(kelvin);
    expect(found?.duv).toBeCloseTo(duv, 4);
  });

  it.each([1100, 2000, 2856, 4123, 6500, 15_000, 40_000])('finds a black body of %d K again', (kelvin) => {
    const [u, v] = blackBodyUv(kelvin);
    // XYZ of a 1960 chromaticity.
    const y = 1;
    const found = correlatedTemperature([(1.5 * u * y) / v, y, (y * (4 - u - 10 * v)) / (2 * v)]);
    expect(found?.kelvin).toBeGreaterThan(kelvin * 0.9995);
    expect(found?.kelvin).toBeLessThan(kelvin * 1.0005);
    expect(Math.abs(found?.duv ?? 1)).toBeLessThan(1e-6);
  });

  it('is told up to 0.05 from the black bodies and not beyond', () => {
    const [u, v] = blackBodyUv(5000);
    // Straight across the locus of 5000 K, which runs there by about 38 degrees.
    const [du, dv] = across(5000);
    const at = (duv: number) => {
      const [pu, pv] = [u + du * duv, v + dv * duv];
      return correlatedTemperature([(1.5 * pu) / pv, 1, (4 - pu - 10 * pv) / (2 * pv)]);
    };
    expect(at(0.0499)?.duv).toBeCloseTo(0.0499, 5);
    expect(at(-0.0499)?.duv).toBeCloseTo(-0.0499, 5);
    expect(at(0.0501)).toBeUndefined();
    expect(at(-0.0501)).toBeUndefined();
  });

  it('is none for what is no colour', () => {
    expect(correlatedTemperature([0, 0, 0])).toBeUndefined();
  });
});

/** Direction across the black bodies at a temperature, towards green. */
function across(kelvin: number): readonly [number, number] {
  const [a, b] = [blackBodyUv(kelvin * 1.001), blackBodyUv(kelvin / 1.001)];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return [-(b[1] - a[1]) / length, (b[0] - a[0]) / length];
}

describe('colour rendering', () => {
  // CIE 15 and CIE 13.3: the published indices of the fluorescent lamps, to the whole numbers they are printed in.
  it.each([
    ['F2', 64, [56, 77, 90, 57, 59, 67, 74, 33, -84, 45, 46, 54, 60, 94]],
    ['F11', 83, [98, 93, 50, 88, 87, 77, 89, 79, 25, 47, 72, 53, 97, 67]],
  ] as const)('of %s is as published', (name, general, special) => {
    const found = colourRendering(tableIlluminant(name));
    expect(Math.round(found?.general ?? 0)).toBe(general);
    // A figure that lies on a half may be printed either way.
    found?.special.forEach((index, i) =>
      expect(Math.abs(index - special[i]), `R${i + 1}`).toBeLessThan(0.56),
    );
  });

  it.each(['A', 'D50', 'D65'] as const)('of %s, which is its own reference, is 100', (name) => {
    expect(colourRendering(tableIlluminant(name))?.general).toBeGreaterThan(99.98);
  });

  it('is none for a light that is too far from white', () => {
    const tinted = (share: number): Illuminant => ({
      name: 'tinted',
      power: tableIlluminant('A').power.map(
        (value, i) => value * (1 + share * Math.exp(-(((i - 30) / 6) ** 2))),
      ),
    });
    const duv = (share: number): number =>
      Math.abs(correlatedTemperature(illuminantWhite(tinted(share), '2deg'))?.duv ?? 1);
    // The tint at which the limit lies, by halving.
    let [under, over] = [0, 2];
    for (let i = 0; i < 30; i++) {
      const middle = (under + over) / 2;
      if (duv(middle) <= MOST_RENDERING_DUV) under = middle;
      else over = middle;
    }
    expect(colourRendering(tinted(under * 0.999))).toBeDefined();
    expect(colourRendering(tinted(over * 1.001))).toBeUndefined();
  });
});

describe('a light in figures', () => {
  it('tells how far it is from daylight and from D50', () => {
    const own = describeLight(daylightIlluminant(6200));
    expect(own.fromDaylight).toBeLessThan(2e-5);
    expect(own.fromD50).toBeGreaterThan(0.018);
    expect(describeLight(tableIlluminant('D50')).fromD50).toBeLessThan(2e-4);
    // Straight by the tables: the nearest of a fine list of daylights.
    const f11 = describeLight(tableIlluminant('F11'));
    expect(f11.fromDaylight).toBeGreaterThan(0.003);
    expect(f11.fromDaylight).toBeLessThan(0.02);
  });

  it('tells the share of ultraviolet where the spectrum shows it, to 360 nm and not from there on', () => {
    const flat = (startNm: number) =>
      uvShare({ startNm, stepNm: 5, count: (700 - startNm) / 5 + 1 }, new Array<number>(90).fill(2));
    expect(flat(340)).toBeCloseTo(60 / 300, 12);
    expect(flat(360)).toBeCloseTo(40 / 300, 12);
    expect(flat(365)).toBeUndefined();
    expect(uvShare({ startNm: 340, stepNm: 5, count: 72 }, new Array<number>(72).fill(1))).toBeUndefined();
    // A step from nothing to light, right on 400 nm.
    const grid = { startNm: 300, stepNm: 100, count: 5 };
    expect(uvShare(grid, [1, 0, 1, 1, 1])).toBeCloseTo(50 / 250, 12);
  });
});

describe('metamerism', () => {
  const grid = GRID_380_730_10;
  const grey = gridWavelengths(grid).map(() => 0.4);
  const waved = gridWavelengths(grid).map((nm) => 0.4 + 0.08 * Math.sin((nm - 380) / 25));
  const d50 = tableIlluminant('D50');

  it('is none for a pair of the same spectrum, and seen for another', () => {
    const same = metamerism(
      { grid, values: grey },
      { grid, values: grey },
      d50,
      tableIlluminant('A'),
      '2deg',
    );
    expect(same).toEqual({ reference: 0, test: 0, index: 0 });
    const other = metamerism(
      { grid, values: grey },
      { grid, values: waved },
      d50,
      tableIlluminant('F11'),
      '2deg',
    );
    expect(other.index).toBeGreaterThan(1);
  });

  it('has the index of the pair scaled to match under the reference', () => {
    // Twice as light throughout is no other spectrum once it is scaled.
    const lighter = grey.map((value) => value / 2);
    const found = metamerism(
      { grid, values: grey },
      { grid, values: lighter },
      d50,
      tableIlluminant('F2'),
      '10deg',
    );
    expect(found.reference).toBeGreaterThan(10);
    expect(found.index).toBeLessThan(1e-9);
  });

  it('takes colours of different steps', () => {
    const fine = { startNm: 380, stepNm: 5, count: 71 };
    const found = metamerism(
      { grid, values: grey },
      { grid: fine, values: new Array<number>(71).fill(0.4) },
      d50,
      tableIlluminant('F11'),
      '2deg',
    );
    expect(found.index).toBeLessThan(1e-9);
  });
});

describe('colours under a light', () => {
  it('bring its white to D50, and leave D50 as it is', () => {
    const values = Float64Array.from({ length: 36 * 2 }, (_, i) => (i < 36 ? 1 : 0.2 + 0.01 * (i - 36)));
    for (const name of ['D50', 'A', 'F11'] as const) {
      const xyz = coloursUnder(
        { grid: GRID_380_730_10, values },
        { light: tableIlluminant(name), observer: '2deg' },
      );
      expect([...xyz.subarray(0, 3)].map((value) => value.toFixed(3))).toEqual([
        '96.422',
        '100.000',
        '82.521',
      ]);
      const adaptation = adaptationOf({ light: tableIlluminant(name), observer: '2deg' });
      if (name === 'D50')
        expect(
          Math.max(...adaptation.map((value, i) => Math.abs(value - (i % 4 === 0 ? 1 : 0)))),
        ).toBeLessThan(2e-4);
    }
  });

  it('is for the observer that is asked for', () => {
    const values = gridWavelengths(GRID_380_730_10).map((nm) => (nm > 560 ? 0.7 : 0.1));
    const seen = (observer: '2deg' | '10deg') =>
      coloursUnder(
        { grid: GRID_380_730_10, values: Float64Array.from(values) },
        { light: tableIlluminant('A'), observer },
      );
    expect(Math.abs(seen('2deg')[1] - seen('10deg')[1])).toBeGreaterThan(0.3);
  });

  it('takes a measured light', () => {
    const grid = { startNm: 380, stepNm: 5, count: 81 };
    const own = measuredIlluminant('own', grid, tableIlluminant('F11').power);
    expect([...own.power]).toEqual([...tableIlluminant('F11').power]);
    expect(TABLE_GRID.count).toBe(81);
  });
});
