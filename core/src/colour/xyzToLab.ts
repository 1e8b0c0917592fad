import type { Lab } from './lab.ts';
import type { Xyz } from './xyz.ts';

const EPSILON = 216 / 24389; // (6/29)³, CIE 15
const KAPPA = 24389 / 27;

/** The function f of CIELAB (CIE 15, 8.2.1), with its linear part below (6/29)³. */
export function labFunction(ratio: number): number {
  return ratio > EPSILON ? Math.cbrt(ratio) : (KAPPA * ratio + 16) / 116;
}

/** Derivative of `labFunction`. */
export function labFunctionSlope(ratio: number): number {
  return ratio > EPSILON ? 1 / (3 * Math.cbrt(ratio) ** 2) : KAPPA / 116;
}

/** Inverse of `labFunction`. */
export function labFunctionInverse(f: number): number {
  return f > 6 / 29 ? f * f * f : (116 * f - 16) / KAPPA;
}

/** XYZ to CIELAB relative to `white`; both on the same scale. */
export function xyzToLab(xyz: Xyz, white: Xyz): Lab {
  const fx = labFunction(xyz[0] / white[0]);
  const fy = labFunction(xyz[1] / white[1]);
  const fz = labFunction(xyz[2] / white[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** CIELAB to XYZ on the scale of `white`. */
export function labToXyz(lab: Lab, white: Xyz): Xyz {
  const fy = (lab[0] + 16) / 116;
  return [
    white[0] * labFunctionInverse(fy + lab[1] / 500),
    white[1] * labFunctionInverse(fy),
    white[2] * labFunctionInverse(fy - lab[2] / 200),
  ];
}

/** Batch form of `xyzToLab`: rows of three, output last; `out` may be `xyz`. */
export function xyzRowsToLab(xyz: ArrayLike<number>, white: Xyz, out: Float64Array): void {
  for (let i = 0; i + 2 < xyz.length; i += 3) {
    const fx = labFunction(xyz[i] / white[0]);
    const fy = labFunction(xyz[i + 1] / white[1]);
    const fz = labFunction(xyz[i + 2] / white[2]);
    out[i] = 116 * fy - 16;
    out[i + 1] = 500 * (fx - fy);
    out[i + 2] = 200 * (fy - fz);
  }
}
