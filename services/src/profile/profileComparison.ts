import type { ProfileComparison } from '../ledger/kinds/profileKind.ts';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { profileDifference, profileFigures } from '@melto/core/profile/profileFigures';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';

type Compared = ProfileComparison['before'];

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
