import { applyMatrix3, invertMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import type { Xyz } from './xyz.ts';

type Chromaticity = readonly [x: number, y: number];

/** Matrix from linear RGB to XYZ (scale of `white`) for primaries given by their chromaticities. */
export function rgbToXyzMatrix(
  red: Chromaticity,
  green: Chromaticity,
  blue: Chromaticity,
  white: Xyz,
): Matrix3 {
  const column = ([x, y]: Chromaticity): Xyz => [x / y, 1, (1 - x - y) / y];
  const [r, g, b] = [column(red), column(green), column(blue)];
  const unscaled: Matrix3 = [r[0], g[0], b[0], r[1], g[1], b[1], r[2], g[2], b[2]];
  const s = applyMatrix3(invertMatrix3(unscaled), white);
  return unscaled.map((value, i) => value * s[i % 3]) as unknown as Matrix3;
}
