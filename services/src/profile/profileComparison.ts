import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { profileDifference, profileFigures } from '@melto/core/profile/profileFigures';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';

type Compared = Pick<ProfileFigures, 'fit' | 'white' | 'black' | 'cast' | 'totalInk'>;

/** A new profile beside the one that was in force. */
export interface ProfileComparison {
  readonly version: number;
  readonly before: Compared;
  readonly after: Compared;
  /** ΔE00 between what the two predict at the same device values. */
  readonly difference: ErrorSummary;
}

export function compareProfiles(
  before: { readonly version: number; readonly profile: IccProfile },
  after: IccProfile,
): ProfileComparison | undefined {
  const [old, own] = [profileFigures(before.profile), profileFigures(after)];
  const difference = profileDifference(before.profile, after);
  if (old === undefined || own === undefined || difference === undefined) return undefined;
  const pick = ({ fit, white, black, cast, totalInk }: ProfileFigures): Compared => ({
    fit,
    white,
    black,
    cast,
    totalInk,
  });
  return { version: before.version, before: pick(old), after: pick(own), difference };
}
