import type { Transform } from '../transform/transform.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import type { IccProfile } from './iccTypes.ts';
import { deviceToLab, labToDevice } from './profileTransform.ts';

/** The ways of a profile from Lab to its device and back, absolute colorimetric. */
export interface AbsoluteWays {
  readonly toDevice: Transform;
  readonly toLab: Transform;
}

/** An issue where the profile lacks one of the two. */
export function absoluteWays(profile: IccProfile): Result<AbsoluteWays> {
  const toDevice = labToDevice(profile, 'absolute');
  if (!toDevice.ok) return toDevice;
  const toLab = deviceToLab(profile, 'absolute');
  return toLab.ok ? success({ toDevice: toDevice.value, toLab: toLab.value }) : toLab;
}
