import { labWeights } from '../colour/labWeights.ts';

/** Columns of d(L*, a*, b*)/d(fit space): X moves a*, Y all three, Z b*. */
const COLUMNS = [
  [0, 500 / 116, 0],
  [1, -500 / 116, 200 / 116],
  [0, 0, -200 / 116],
] as const;

const weights = new Float64Array(9);

/**
 * ΔE00 (root mean square, to first order) at a colour for independent errors of the three values of the fit space.
 * @param variance of each of them.
 */
export function fitSpaceSlope(lab: ArrayLike<number>, variance: ArrayLike<number>): number {
  labWeights(lab[0], lab[1], lab[2], 1, weights);
  let sum = 0;
  COLUMNS.forEach(([dl, da, db], axis) => {
    for (let r = 0; r < 3; r++)
      sum += variance[axis] * (weights[3 * r] * dl + weights[3 * r + 1] * da + weights[3 * r + 2] * db) ** 2;
  });
  return Math.sqrt(sum);
}
