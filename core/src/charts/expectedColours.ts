import type { Lab } from '../colour/lab.ts';
import { SRGB_TO_XYZ_D50, srgbDecode } from '../colour/srgb.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { DeviceSpace } from '../device/deviceSpace.ts';
import { genericPressLab } from './genericPress.ts';
import { applyMatrix3 } from '../numerics/matrix3.ts';

/** Generic print: black at L* 18, chroma three quarters of the screen's. */
const GENERIC_BLACK = 18;
const GENERIC_CHROMA = 0.75;

/** What a generic device of its kind prints for device values; good enough to tell patches and strips apart. */
export function genericLab(space: DeviceSpace, device: ArrayLike<number>, at = 0): Lab {
  if (space !== 'rgb') return genericPressLab(device, at);
  const rgb = [device[at], device[at + 1], device[at + 2]];
  const linear = rgb.map(srgbDecode);
  const [l, a, b] = xyzToLab(applyMatrix3(SRGB_TO_XYZ_D50, [linear[0], linear[1], linear[2]]), WHITE_ICC);
  return [GENERIC_BLACK + (l * (100 - GENERIC_BLACK)) / 100, a * GENERIC_CHROMA, b * GENERIC_CHROMA];
}

/** Batch form: row-major patch × 3. */
export function genericLabRows(space: DeviceSpace, device: Float64Array, channels: number): Float64Array {
  const count = device.length / channels;
  const out = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) out.set(genericLab(space, device, i * channels), i * 3);
  return out;
}
