import { describe, expect, it } from 'vitest';
import { compileCurve } from '../icc/evaluateCurve.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { OTHER_SPACES, SRGB } from './sourceSpaces.ts';
import type { SourceSpace } from './sourceSpaces.ts';

/**
 * XYZ of the primaries in the connection space (D50, Bradford), as the standards and the profiles of these spaces that
 * their registries publish have them: red, green, blue.
 */
const PRIMARIES: Readonly<Record<string, readonly (readonly [number, number, number])[]>> = {
  sRGB: [
    [0.43607, 0.22249, 0.01392],
    [0.38515, 0.71687, 0.09708],
    [0.14307, 0.06061, 0.7141],
  ],
  'P3 with the white of sRGB': [
    [0.51512, 0.2412, -0.00105],
    [0.29198, 0.69225, 0.04189],
    [0.1571, 0.06657, 0.78407],
  ],
  opRGB: [
    [0.60974, 0.31111, 0.01947],
    [0.20528, 0.62567, 0.06087],
    [0.14919, 0.06322, 0.74457],
  ],
  'ROMM RGB': [
    [0.79767, 0.28804, 0],
    [0.13519, 0.71188, 0],
    [0.03135, 0.00009, 0.82491],
  ],
};

describe('spaces that pictures are taken for', () => {
  it.each([SRGB, ...OTHER_SPACES])(
    '$name has the primaries of its standard',
    ({ name, matrix }: SourceSpace) => {
      const own = PRIMARIES[name];
      const scale = WHITE_ICC[1];
      own.forEach((xyz, primary) =>
        xyz.forEach((value, axis) => expect(matrix[3 * axis + primary] / scale).toBeCloseTo(value, 3)),
      );
    },
  );

  it.each([
    // IEC 61966-2-1: straight below 0.04045; 0.5 is 0.21404.
    ['sRGB', 0.04, 0.04 / 12.92],
    ['sRGB', 0.5, 0.214041],
    ['P3 with the white of sRGB', 0.5, 0.214041],
    // IEC 61966-2-5: a power of 563/256.
    ['opRGB', 0.5, 0.5 ** 2.19921875],
    // ISO 22028-2: straight below 1/32, a power of 1.8 above.
    ['ROMM RGB', 0.03, 0.03 / 16],
    ['ROMM RGB', 0.5, 0.5 ** 1.8],
  ])('%s decodes %f as its standard does', (name, signal, linear) => {
    const found = [SRGB, ...OTHER_SPACES].find((space) => space.name === name);
    expect(found === undefined ? NaN : compileCurve(found.curve)(signal)).toBeCloseTo(linear, 4);
  });
});
