import type { ProfileComparison } from '../ledger/kinds/profileKind.ts';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { farthestApart, profileDifference, profileFigures } from '@melto/core/profile/profileFigures';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';

/** Colours that are listed. */
const MOST_MOVED = 8;

type Compared = ProfileComparison['before'];

export function compareProfiles(
  before: { readonly version: number; readonly profile: IccProfile },
  after: IccProfile,
  /** Another light than that of the one before: what moves is told colour by colour. */
  otherLight = false,
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
  const moved = otherLight ? farthestApart(before.profile, after, MOST_MOVED) : undefined;
  return { version: before.version, before: pick(old), after: pick(own), difference, moved };
}
