import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labFunction, labFunctionInverse } from '../colour/xyzToLab.ts';

/**
 * The space models are fitted in: y = 116·f(XYZ/W) with the Lab function f, three columns. Lab is linear in it and
 * its unit is about one L*.
 */
export function xyzToFitSpace(xyz: ArrayLike<number>, out: Float64Array): void {
  for (let i = 0; i < xyz.length; i++) out[i] = 116 * labFunction(xyz[i] / WHITE_D50_MEASURED[i % 3]);
}

export function fitSpaceToXyz(y: ArrayLike<number>, out: Float64Array): void {
  for (let i = 0; i < y.length; i++) out[i] = WHITE_D50_MEASURED[i % 3] * labFunctionInverse(y[i] / 116);
}

/** Fit space to Lab (D50, measured white); `out` may be `y`. */
export function fitSpaceToLab(y: ArrayLike<number>, out: Float64Array): void {
  for (let i = 0; i + 2 < y.length; i += 3) {
    const fx = y[i] / 116;
    const fy = y[i + 1] / 116;
    const fz = y[i + 2] / 116;
    out[i] = 116 * fy - 16;
    out[i + 1] = 500 * (fx - fy);
    out[i + 2] = 200 * (fy - fz);
  }
}
