import { labToIpt } from '@melto/core/colour/ipt';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { RenderingIntent } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { unwrap } from '@melto/core/result';

/** Degrees between the hue that was asked for and the one that prints, where lines of equal hue are straight (IPT). */
export function hueTurned(profile: IccProfile, intent: RenderingIntent, asked: readonly number[]): number {
  const toDevice = unwrap(labToDevice(profile, intent));
  const device = new Float64Array(toDevice.outputs);
  const printed = new Float64Array(3);
  toDevice.apply(asked, device);
  unwrap(deviceToLab(profile, 'relative')).apply(device, printed);
  return Math.abs(((hueOf(printed) - hueOf(asked) + 540) % 360) - 180);
}

function hueOf(lab: ArrayLike<number>): number {
  const [, p, t] = labToIpt([lab[0], lab[1], lab[2]]);
  return (Math.atan2(t, p) * 180) / Math.PI;
}
