import { applyMatrix3, invertMatrix3, multiplyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import { adaptationMatrix } from './chromaticAdaptation.ts';
import type { Lab } from './lab.ts';
import { rgbToXyzMatrix } from './rgbSpace.ts';
import { WHITE_ICC, WHITE_SRGB } from './whitePoints.ts';
import { labToXyz, xyzToLab } from './xyzToLab.ts';

const SRGB_TO_XYZ_D65: Matrix3 = rgbToXyzMatrix([0.64, 0.33], [0.3, 0.6], [0.15, 0.06], WHITE_SRGB);
export const SRGB_TO_XYZ_D50: Matrix3 = multiplyMatrix3(
  adaptationMatrix(WHITE_SRGB, WHITE_ICC),
  SRGB_TO_XYZ_D65,
);
const XYZ_D50_TO_SRGB: Matrix3 = invertMatrix3(SRGB_TO_XYZ_D50);

/** Linear light to the sRGB signal (IEC 61966-2-1), 0..1. */
export function srgbEncode(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
}

export function srgbDecode(signal: number): number {
  return signal <= 0.04045 ? signal / 12.92 : Math.pow((signal + 0.055) / 1.055, 2.4);
}

export interface ScreenColour {
  /** sRGB 0..255, clipped. */
  readonly rgb: readonly [number, number, number];
  /** The colour lies outside sRGB by more than rounding. */
  readonly clipped: boolean;
}

/** sRGB 0..1 to Lab (ICC white), Bradford adapted. */
export function srgbToLab([r, g, b]: readonly number[]): Lab {
  return xyzToLab(applyMatrix3(SRGB_TO_XYZ_D50, [srgbDecode(r), srgbDecode(g), srgbDecode(b)]), WHITE_ICC);
}

/** Lab (D50) to sRGB for display, Bradford adapted, clipped per channel and marked where it was clipped. */
export function labToScreen(lab: Lab): ScreenColour {
  const linear = applyMatrix3(XYZ_D50_TO_SRGB, labToXyz(lab, WHITE_ICC));
  let clipped = false;
  const rgb = linear.map((value) => {
    if (value < -0.002 || value > 1.005) clipped = true;
    return Math.round(255 * srgbEncode(Math.min(1, Math.max(0, value))));
  }) as unknown as [number, number, number];
  return { rgb, clipped };
}

/** Lab rows (D50) to linear light of sRGB, clipped to 0..1, for what a screen shades by itself. */
export function labRowsToLinearScreen(lab: ArrayLike<number>): Float32Array {
  const out = new Float32Array(lab.length);
  for (let i = 0; i < lab.length; i += 3) {
    const linear = applyMatrix3(XYZ_D50_TO_SRGB, labToXyz([lab[i], lab[i + 1], lab[i + 2]], WHITE_ICC));
    for (let c = 0; c < 3; c++) out[i + c] = Math.min(1, Math.max(0, linear[c]));
  }
  return out;
}

/** `#rrggbb` of a Lab colour for display. */
export function labToHex(lab: Lab): string {
  const [r, g, b] = labToScreen(lab).rgb;
  return `#${((1 << 24) | (r << 16) | (g << 8) | b).toString(16).slice(1)}`;
}
