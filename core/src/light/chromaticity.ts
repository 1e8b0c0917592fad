import type { Xyz } from '../colour/xyz.ts';

/** A point of a chromaticity diagram. */
export type Chromaticity = readonly [number, number];

/** CIE 1931 x, y. */
export function xyOf([x, y, z]: Xyz): Chromaticity {
  const sum = x + y + z;
  return [x / sum, y / sum];
}

/** CIE 1960 u, v, in which correlated colour temperature is defined. */
export function uv1960Of([x, y, z]: Xyz): Chromaticity {
  const sum = x + 15 * y + 3 * z;
  return [(4 * x) / sum, (6 * y) / sum];
}

/** CIE 1976 u', v', in which lights are compared. */
export function uv1976Of(xyz: Xyz): Chromaticity {
  const [u, v] = uv1960Of(xyz);
  return [u, 1.5 * v];
}

export const distanceOf = (a: Chromaticity, b: Chromaticity): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
