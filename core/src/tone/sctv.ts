import { labFunction } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';

/** V of ISO 20654: the Lab function of X, Y and Z over the white, in units of L*. @param at where the colour begins. */
export function vOfXyz(xyz: ArrayLike<number>, at = 0): readonly [number, number, number] {
  const v = (axis: number): number => 116 * labFunction(xyz[at + axis] / WHITE_D50_MEASURED[axis]) - 16;
  return [v(0), v(1), v(2)];
}

/** Euclidean distance of V from the paper's V, in units of L*; the spot colour tone value is its share of the solid's. */
export function sctvDistance(xyz: ArrayLike<number>, at: number, paper: ArrayLike<number>): number {
  const v = vOfXyz(xyz, at);
  const p = vOfXyz(paper);
  return Math.hypot(v[0] - p[0], v[1] - p[1], v[2] - p[2]);
}

/** Spot colour tone value (ISO 20654), 0..1, of a tint from XYZ (Y = 100) of tint, paper and solid. */
export function spotColourToneValue(
  tint: ArrayLike<number>,
  paper: ArrayLike<number>,
  solid: ArrayLike<number>,
): number {
  return sctvDistance(tint, 0, paper) / sctvDistance(solid, 0, paper);
}
