import { greyMagentaYellow } from '../balance/greyTriplet.ts';

/** Groups that metrics are taken over; a patch may belong to several. */
export type PatchGroup =
  | 'all'
  | 'substrate'
  | 'solids'
  | 'chromatic solids'
  | 'overprints'
  | 'greys'
  | 'midtones'
  | 'outer gamut'
  | 'tertiaries';

const NONE = 0.005;
const FULL = 0.995;
/** How far a grey of three inks may be from the triplet of its cyan. */
const GREY_WIDTH = 0.03;
const OUTER = 0.7;

/**
 * The groups of a CMYK patch by its device values. Greys are those of three inks at the triplet of ISO/TS 10128, outer
 * gamut is what has no black, at most two inks and one of them from 70 %.
 * @param device C, M, Y, K, 0..1.
 */
export function patchGroups(device: ArrayLike<number>): ReadonlySet<PatchGroup> {
  const groups = new Set<PatchGroup>(['all']);
  const inks = [0, 1, 2, 3].map((ink) => device[ink]);
  const [c, m, y, k] = inks;
  const used = inks.filter((value) => value > NONE);
  const chromatic = inks.slice(0, 3).filter((value) => value > NONE);
  const full = used.length > 0 && used.every((value) => value > FULL);
  if (used.length === 0) groups.add('substrate');
  if (used.length === 1 && full) {
    groups.add('solids');
    if (k < NONE) groups.add('chromatic solids');
  }
  if (used.length > 1 && full && k < NONE) groups.add('overprints');
  if (used.length === 1 && used[0] >= 0.4 && used[0] <= 0.7) groups.add('midtones');
  const grey = greyMagentaYellow(c);
  if (
    k < NONE &&
    chromatic.length === 3 &&
    !full &&
    Math.abs(m - grey) <= GREY_WIDTH &&
    Math.abs(y - grey) <= GREY_WIDTH
  )
    groups.add('greys');
  if (k < NONE && chromatic.length > 0 && chromatic.length < 3 && Math.max(...chromatic) >= OUTER)
    groups.add('outer gamut');
  if (chromatic.length === 3 && !groups.has('greys') && !full) groups.add('tertiaries');
  return groups;
}
