import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';

/** XYZ (100 for a perfect diffuser) that colours may have: noise takes deep ones a little below nothing. */
const LEAST_XYZ = -1;
const MOST_XYZ = 300;

/** @returns the largest value, or an issue where no print has such a colour. */
export function xyzRange(xyz: Float64Array): Result<number> {
  let most = 0;
  let least = 0;
  for (const value of xyz) {
    if (!(value <= most) && !Number.isNaN(most)) most = value;
    if (value < least) least = value;
  }
  const wrong = (expected: string, found: number) =>
    failure<number>({ code: 'measured.colour-range', path: 'XYZ', expected, found: String(found) });
  if (least < LEAST_XYZ) return wrong(`XYZ that is nowhere below ${LEAST_XYZ}`, least);
  return most <= MOST_XYZ ? success(most) : wrong('XYZ with 100 for a perfect diffuser', most);
}
