import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';

/**
 * A generic four-colour press: Yule-Nielsen mixing of 16 solids in XYZ. Solids without black are those published for
 * offset on coated paper (characterisation data FOGRA39L, December 2006); black over them is made darker in proportion.
 */
const SOLIDS: readonly Lab[] = [
  [95, 0, -2], // paper
  [55, -37, -50], // C
  [48, 74, -3], // M
  [24, 22, -46], // CM
  [89, -5, 93], // Y
  [50, -65, 27], // CY
  [47, 68, 48], // MY
  [23, 0, 0], // CMY
];
const BLACK: Lab = [16, 0, 0];
const N = 1.8;
const GAIN = 0.13;

const ROOTS = rootsOfSolids();

function rootsOfSolids(): Float64Array {
  const out = new Float64Array(16 * 3);
  const paper = labToXyz(SOLIDS[0], WHITE_D50_MEASURED);
  const black = labToXyz(BLACK, WHITE_D50_MEASURED);
  SOLIDS.forEach((lab, mask) => {
    const xyz = labToXyz(lab, WHITE_D50_MEASURED);
    for (let axis = 0; axis < 3; axis++) {
      out[3 * mask + axis] = xyz[axis] ** (1 / N);
      out[3 * (mask + 8) + axis] = (black[axis] * (xyz[axis] / paper[axis]) ** 0.35) ** (1 / N);
    }
  });
  return out;
}

/** Lab (D50) of CMYK, 0..1, on a generic press: good enough to tell patches apart. */
export function genericPressLab(device: ArrayLike<number>, at = 0): Lab {
  const area = [0, 1, 2, 3].map((i) => {
    const t = Math.min(1, Math.max(0, device[at + i]));
    return t + 4 * GAIN * 0.6 * t * (1 - t);
  });
  const sum = [0, 0, 0];
  for (let mask = 0; mask < 16; mask++) {
    let weight = 1;
    for (let ink = 0; ink < 4; ink++) weight *= (mask >> ink) & 1 ? area[ink] : 1 - area[ink];
    for (let axis = 0; axis < 3; axis++) sum[axis] += weight * ROOTS[3 * mask + axis];
  }
  return xyzToLab([sum[0] ** N, sum[1] ** N, sum[2] ** N], WHITE_D50_MEASURED);
}
