import { describe, expect, it } from 'vitest';
import { CMYK } from '../device/process.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { brightening, brightenerPair, cieWhiteness, MOST_UV, spectraAtUv } from './ultraviolet.ts';

const grid = GRID_380_730_10;
const nm = gridWavelengths(grid);
/** Paper without ultraviolet, and what a brightener sends out about 440 nm. */
const dark = nm.map((at) => 0.86 - 0.1 * Math.exp(-(((at - 380) / 30) ** 2)));
const glow = nm.map((at) => 0.16 * Math.exp(-(((at - 440) / 18) ** 2)));
const lit = dark.map((value, i) => value + glow[i]);

const set = (spectra: readonly number[][], device?: readonly number[]): PatchSet => ({
  ids: spectra.map((_, i) => String(i + 1)),
  ...{ process: CMYK, conditions: {}, notes: [] },
  device: device === undefined ? undefined : Float64Array.from(device),
  spectra: { grid, values: Float64Array.from(spectra.flat()) },
});

describe('a sheet with ultraviolet and without', () => {
  it('is what a share of it shows: none, that of M1, and in between', () => {
    const pair = brightenerPair(set([lit, dark]), set([dark, dark]));
    if (!pair.ok) throw new Error('no pair');
    expect([...spectraAtUv(pair.value, 0).values.subarray(0, 36)]).toEqual(dark);
    spectraAtUv(pair.value, 1)
      .values.subarray(0, 36)
      .forEach((value, i) => expect(value).toBeCloseTo(lit[i], 12));
    spectraAtUv(pair.value, 0.5)
      .values.subarray(0, 36)
      .forEach((value, i) => expect(value).toBeCloseTo(dark[i] + glow[i] / 2, 12));
    // A patch that nothing glows in stays as it is, whatever the share.
    expect([...spectraAtUv(pair.value, MOST_UV).values.subarray(36)]).toEqual(dark);
    for (const share of [-0.01, MOST_UV + 0.01, NaN])
      expect(() => spectraAtUv(pair.value, share)).toThrow(/0 to 1.2/);
  });

  it.each([
    ['of colours alone', { ...set([dark]), spectra: undefined }, 'colours only'],
    ['of other patches', set([dark, dark]), '2 in the one without'],
    ['of another order', set([dark], [0, 0, 0, 1]), 'others from patch 1 on'],
    [
      'of other wavelengths',
      { ...set([dark]), spectra: { grid: { ...grid, startNm: 390 }, values: Float64Array.from(dark) } },
      'others',
    ],
  ] as const)('is refused where one is %s', (_, other, words) => {
    const pair = brightenerPair(set([lit], [0, 0, 0, 0]), other);
    expect(!pair.ok && pair.issues[0].found).toContain(words);
  });
});

describe('brightening', () => {
  it('turns a paper blue and whiter', () => {
    const { deltaE, b, whiteness } = brightening(grid, lit, dark);
    expect(b).toBeLessThan(-3);
    expect(deltaE).toBeGreaterThan(3);
    expect(whiteness[0]?.whiteness ?? 0).toBeGreaterThan((whiteness[1]?.whiteness ?? 0) + 15);
    expect(brightening(grid, dark, dark)).toMatchObject({ deltaE: 0, b: 0 });
  });

  it('has the whiteness of a perfect reflector as the formula has it, and none for a colour', () => {
    const perfect = cieWhiteness(
      grid,
      nm.map(() => 1),
    );
    expect(perfect?.whiteness).toBeCloseTo(100, 0);
    expect(Math.abs(perfect?.tint ?? 9)).toBeLessThan(0.1);
    expect(
      cieWhiteness(
        grid,
        nm.map((at) => (at > 560 ? 0.8 : 0.05)),
      ),
    ).toBeNull();
    // W has to stay below 5 Y − 280: a grey of Y 65 is no white, one of Y 75 is.
    expect(
      cieWhiteness(
        grid,
        nm.map(() => 0.69),
      ),
    ).toBeNull();
    expect(
      cieWhiteness(
        grid,
        nm.map(() => 0.71),
      ),
    ).not.toBeNull();
  });
});
