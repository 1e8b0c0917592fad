import { applyMatrix3, invertMatrix3, multiplyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import type { Xyz } from './xyz.ts';

/** Cone response matrices. Bradford: ICC.1:2022 Annex E; CAT16: CIE 248; von Kries: Hunt-Pointer-Estevez. */
export const ADAPTATION_CONES = {
  bradford: [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296],
  vonKries: [0.40024, 0.7076, -0.08081, -0.2263, 1.16532, 0.0457, 0, 0, 0.91822],
  cat16: [0.401288, 0.650173, -0.051461, -0.250268, 1.204414, 0.045854, -0.002079, 0.048952, 0.953127],
} as const satisfies Record<string, Matrix3>;

export type AdaptationMethod = keyof typeof ADAPTATION_CONES;

/** The linear map that takes XYZ under white `from` to XYZ under white `to`, complete adaptation. */
export function adaptationMatrix(from: Xyz, to: Xyz, method: AdaptationMethod = 'bradford'): Matrix3 {
  const cones = ADAPTATION_CONES[method];
  const a = applyMatrix3(cones, from);
  const b = applyMatrix3(cones, to);
  const scale: Matrix3 = [b[0] / a[0], 0, 0, 0, b[1] / a[1], 0, 0, 0, b[2] / a[2]];
  return multiplyMatrix3(invertMatrix3(cones), multiplyMatrix3(scale, cones));
}
