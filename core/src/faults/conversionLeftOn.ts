import { rgbToXyzMatrix } from '../colour/rgbSpace.ts';
import { adaptationMatrix } from '../colour/chromaticAdaptation.ts';
import { WHITE_ICC, WHITE_SRGB } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { solvePositiveDefinite } from '../numerics/cholesky.ts';
import { applyMatrix3, multiplyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3, Vector3 } from '../numerics/matrix3.ts';

/** How well a sheet is explained by a colour conversion between the file and the device. */
export interface ConversionEvidence {
  /** Root mean square of what the best conversion leaves unexplained, in Lab units. */
  readonly residual: number;
  /** Mean distance of the grey patches from the line between paper and black, a*b*. */
  readonly greyCast: number;
  /** Patches that could be used. */
  readonly used: number;
}

/** Working spaces that files are commonly taken to be in: primaries (CIE x, y), white, exponent. */
const D65_ADAPTED = adaptationMatrix(WHITE_SRGB, WHITE_ICC);
const SPACES: readonly { readonly toXyz: Matrix3; readonly exponent: number }[] = [
  [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
  ],
  [
    [0.64, 0.33],
    [0.21, 0.71],
    [0.15, 0.06],
  ],
  [
    [0.68, 0.32],
    [0.265, 0.69],
    [0.15, 0.06],
  ],
].flatMap((primaries) => {
  const [r, g, b] = primaries as [[number, number], [number, number], [number, number]];
  const toXyz = multiplyMatrix3(D65_ADAPTED, rgbToXyzMatrix(r, g, b, WHITE_SRGB));
  return [1.8, 2.2].map((exponent) => ({ toXyz, exponent }));
});

/** Patches whose colour lies well inside any printer's gamut, where a colorimetric conversion shows undisturbed. */
const MOST_CHROMA = 42;
const LIGHTNESS: readonly [number, number] = [28, 92];
const LEAST_PATCHES = 10;

/**
 * Compares a reading of raw RGB values with what conversions from common working spaces would have printed. The
 * lightness may be bent by any cubic and the chroma scaled by one factor, so that perceptual intents and contrast
 * settings are covered; what is left is small after a conversion and large for a device's own raw response.
 * @param device row-major × 3, 0..1.
 * @param lab row-major × 3, measured, D50.
 */
export function conversionEvidence(device: Float64Array, lab: Float64Array): ConversionEvidence | undefined {
  const paper = paperOf(device, lab);
  if (paper === undefined) return undefined;
  let best: { residual: number; used: number } | undefined;
  for (const space of SPACES) {
    const fit = fitSpace(space, device, lab, paper);
    if (fit !== undefined && (best === undefined || fit.residual < best.residual)) best = fit;
  }
  if (best === undefined) return undefined;
  return { ...best, greyCast: greyCast(device, lab, paper) };
}

function paperOf(device: Float64Array, lab: Float64Array): Vector3 | undefined {
  let count = 0;
  const sum = [0, 0, 0];
  for (let i = 0; i < device.length; i += 3)
    if (device[i] + device[i + 1] + device[i + 2] > 2.999) {
      count++;
      for (let axis = 0; axis < 3; axis++) sum[axis] += lab[i + axis];
    }
  return count === 0 ? undefined : [sum[0] / count, sum[1] / count, sum[2] / count];
}

function fitSpace(
  space: { toXyz: Matrix3; exponent: number },
  device: Float64Array,
  lab: Float64Array,
  paper: Vector3,
): { residual: number; used: number } | undefined {
  const rows: { l: number; a: number; b: number; i: number }[] = [];
  for (let i = 0; i < device.length; i += 3) {
    const linear = [0, 1, 2].map((axis) => Math.pow(device[i + axis], space.exponent));
    const [l, a, b] = xyzToLab(applyMatrix3(space.toXyz, [linear[0], linear[1], linear[2]]), WHITE_ICC);
    if (l < LIGHTNESS[0] || l > LIGHTNESS[1] || Math.hypot(a, b) > MOST_CHROMA) continue;
    rows.push({ l: l / 100, a, b, i });
  }
  if (rows.length < LEAST_PATCHES) return undefined;
  // Lightness: cubic; the paper's tint fades towards black; chroma: one factor.
  const normal = new Float64Array(16);
  const right = new Float64Array(4);
  let cross = 0;
  let power = 0;
  const tinted = rows.map(({ l, i }) => [lab[i + 1] - paper[1] * l, lab[i + 2] - paper[2] * l]);
  rows.forEach(({ l, a, b, i }, row) => {
    const powers = [1, l, l * l, l * l * l];
    for (let p = 0; p < 4; p++) {
      right[p] += powers[p] * lab[i];
      for (let q = 0; q < 4; q++) normal[4 * p + q] += powers[p] * powers[q];
    }
    cross += a * tinted[row][0] + b * tinted[row][1];
    power += a * a + b * b;
  });
  for (let p = 0; p < 4; p++) normal[5 * p] += 1e-6;
  const cubic = solvePositiveDefinite(normal, 4, right);
  const chroma = Math.min(1.35, Math.max(0.6, cross / power));
  let sum = 0;
  rows.forEach(({ l, a, b, i }, row) => {
    const dl = lab[i] - (cubic[0] + l * (cubic[1] + l * (cubic[2] + l * cubic[3])));
    sum += dl * dl + (tinted[row][0] - chroma * a) ** 2 + (tinted[row][1] - chroma * b) ** 2;
  });
  return { residual: Math.sqrt(sum / rows.length), used: rows.length };
}

/** Mean a*b* distance of the greys between L* 30 and 85 from the paper's tint faded to black. */
function greyCast(device: Float64Array, lab: Float64Array, paper: Vector3): number {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < device.length; i += 3) {
    const [r, g, b] = [device[i], device[i + 1], device[i + 2]];
    if (Math.max(r, g, b) - Math.min(r, g, b) > 1e-6 || lab[i] < 30 || lab[i] > 85) continue;
    const share = lab[i] / paper[0];
    sum += Math.hypot(lab[i + 1] - paper[1] * share, lab[i + 2] - paper[2] * share);
    count++;
  }
  return count === 0 ? NaN : sum / count;
}
