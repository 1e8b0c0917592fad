import { drivenByInks } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { Lab } from '../colour/lab.ts';
import { SRGB_TO_XYZ_D50, srgbDecode } from '../colour/srgb.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { genericPressLab } from './genericPress.ts';
import { applyMatrix3 } from '../numerics/matrix3.ts';

/** Generic print: black at L* 18, chroma three quarters of the screen's. */
const GENERIC_BLACK = 18;
const GENERIC_CHROMA = 0.75;

/** What a generic device of its kind prints for device values; good enough to tell patches and strips apart. */
export function genericLab(process: Process, device: ArrayLike<number>, at = 0): Lab {
  if (drivenByInks(process)) return genericPressLab(asCmyk(process, device, at));
  const rgb = [device[at], device[at + 1], device[at + 2]];
  const linear = rgb.map(srgbDecode);
  const [l, a, b] = xyzToLab(applyMatrix3(SRGB_TO_XYZ_D50, [linear[0], linear[1], linear[2]]), WHITE_ICC);
  return [GENERIC_BLACK + (l * (100 - GENERIC_BLACK)) / 100, a * GENERIC_CHROMA, b * GENERIC_CHROMA];
}

/** Whether the name of an ink tells its colour. */
export function isKnownInk(ink: string): boolean {
  return Object.hasOwn(NEAR_INKS, ink);
}

/** C, M, Y, K that other inks come near to, for a first look only. */
export function nearCmyk(ink: string): readonly [number, number, number, number] {
  return NEAR_INKS[ink] ?? NEAR_OTHER;
}

const NEAR_INKS: Readonly<Record<string, readonly [number, number, number, number]>> = {
  C: [1, 0, 0, 0],
  M: [0, 1, 0, 0],
  Y: [0, 0, 1, 0],
  K: [0, 0, 0, 1],
  O: [0, 0.6, 1, 0],
  R: [0, 1, 0.9, 0],
  G: [0.8, 0, 1, 0],
  B: [1, 0.7, 0, 0],
  V: [0.8, 0.9, 0, 0],
};
const NEAR_OTHER = [0.3, 0.3, 0.3, 0] as const;

/** C, M, Y, K that come near to a device value of other inks, for a first look only. */
export function asCmyk({ channels }: Process, device: ArrayLike<number>, at = 0): number[] {
  const out = [0, 0, 0, 0];
  channels.forEach(({ name }, c) => {
    const near = nearCmyk(name);
    // Inks print over each other: what one leaves, the next one covers.
    near.forEach((share, i) => (out[i] = 1 - (1 - (out[i] ?? 0)) * (1 - share * (device[at + c] ?? 0))));
  });
  return out;
}

/** Batch form: row-major patch × 3. */
export function genericLabRows(process: Process, device: Float64Array, channels: number): Float64Array {
  const count = device.length / channels;
  const out = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) out.set(genericLab(process, device, i * channels), i * 3);
  return out;
}
