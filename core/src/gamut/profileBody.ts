import type { IccProfile } from '../icc/iccTypes.ts';
import { mostInk } from '../icc/mostInk.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { deviceSurface } from './deviceSurface.ts';
import { gamutBody } from './gamutBody.ts';
import type { MadeBody } from './madeBody.ts';

/**
 * Points along an edge of a face that is only looked at: a body of 17 has a volume within 0.03 % of this for four inks,
 * within 0.1 % for six, and takes up to four times as long.
 */
const LOOKED_AT: Readonly<Record<number, number>> = { 3: 33, 4: 11 };
const LOOKED_AT_MORE = 9;

/** What a profile's device can print or show, by its colorimetric table: inks as far as its own table to inks goes. */
export function profileBody(profile: IccProfile, name: string): Result<MadeBody> {
  const paper = profile.header.deviceClass === 'prtr';
  const toLab = deviceToLab(profile, paper ? 'absolute' : 'relative');
  if (!toLab.ok) return toLab;
  const { inputs } = toLab.value;
  if (inputs < 3 || inputs > 8)
    return failure({
      code: 'gamut.channels',
      path: 'colour space',
      expected: '3 to 8 channels, which make a body',
      found: `${inputs} of ${profile.header.colourSpace.trim()}`,
    });
  // A profile without a table to inks limits none.
  const toInks = inputs === 3 ? undefined : labToDevice(profile, 'relative');
  const totalInk = toInks?.ok === true ? mostInk(toInks.value) : undefined;
  const surface = deviceSurface(toLab.value, totalInk, undefined, LOOKED_AT[inputs] ?? LOOKED_AT_MORE);
  const body = gamutBody(name, surface);
  return success({ body, white: paper ? 'paper' : 'its own', totalInk });
}
