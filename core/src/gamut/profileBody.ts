import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { deviceSurface } from './deviceSurface.ts';
import { gamutBody } from './gamutBody.ts';
import type { GamutBody } from './gamutBody.ts';

/** A body of a profile, and what it was made by. */
export interface ProfileBody {
  readonly body: GamutBody;
  /** With the white of its paper, or relative to its own white, as of a screen or a working space. */
  readonly white: 'paper' | 'its own';
  /** Most ink of its table from Lab, 1 = 100 %; undefined where no inks are limited. */
  readonly totalInk?: number;
}

/** Steps of L*, and of a* and b* over −100 to 100, at which the most ink of a profile is looked for. */
const STEPS = 13;

/** What a profile's device can print or show, by its colorimetric table: inks as far as its own table to inks goes. */
export function profileBody(profile: IccProfile, name: string): Result<ProfileBody> {
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
  const totalInk = inputs === 3 ? undefined : mostInk(profile);
  const body = gamutBody(name, deviceSurface(toLab.value, totalInk));
  return success({ body, white: paper ? 'paper' : 'its own', totalInk });
}

/** The most ink that a profile asks for any colour; undefined where it has no table to inks. */
function mostInk(profile: IccProfile): number | undefined {
  const toInks = labToDevice(profile, 'relative');
  if (!toInks.ok) return undefined;
  const lab = new Float64Array(3 * STEPS ** 3);
  for (let i = 0; i < STEPS ** 3; i++) {
    const [l, a, b] = [Math.floor(i / STEPS ** 2), Math.floor(i / STEPS) % STEPS, i % STEPS];
    lab.set([(100 * l) / (STEPS - 1), (200 * a) / (STEPS - 1) - 100, (200 * b) / (STEPS - 1) - 100], 3 * i);
  }
  const { outputs } = toInks.value;
  const inks = new Float64Array(STEPS ** 3 * outputs);
  toInks.value.apply(lab, inks);
  let most = 0;
  for (let at = 0; at < inks.length; at += outputs) {
    let sum = 0;
    for (let ink = 0; ink < outputs; ink++) sum += inks[at + ink];
    most = Math.max(most, sum);
  }
  return most;
}
