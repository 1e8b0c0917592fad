import type { Lab } from '../colour/lab.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { profileFigures } from '../profile/profileFigures.ts';
import { bodyFrom, bodyVolume, commonGrey } from './gamutBody.ts';
import type { ProfileFigures } from '../profile/profileFigures.ts';
import { profileBody } from './profileBody.ts';

/** What a profile's device can print, in three figures. */
export interface GamutFigures {
  /** Cubic ΔE*ab, with its paper. */
  readonly volume: number;
  /** Lab of bare paper and of the darkest neutral, absolute. */
  readonly white: readonly number[];
  readonly black: readonly number[];
}

/**
 * Undefined where a profile makes no body, or has no tables both ways.
 * @param figures of the profile, where they are known already.
 */
export function gamutFigures(
  profile: IccProfile,
  figures: Pick<ProfileFigures, 'white' | 'black'> | undefined = profileFigures(profile),
): GamutFigures | undefined {
  const made = profileBody(profile, '');
  if (figures === undefined || !made.ok) return undefined;
  const grey = commonGrey([made.value.body]);
  if (grey === undefined) return undefined;
  const { white, black } = figures;
  return { volume: bodyVolume(bodyFrom(made.value.body, grey)), white, black };
}

/** Visual density of a colour above that of paper, as its lightness tells it. */
export function densityOverPaper(black: readonly number[], white: readonly number[]): number {
  const luminance = ([l, a, b]: readonly number[]): number =>
    labToXyz([l, a, b] as Lab, WHITE_D50_MEASURED)[1];
  return Math.log10(luminance(white) / Math.max(1e-4, luminance(black)));
}
