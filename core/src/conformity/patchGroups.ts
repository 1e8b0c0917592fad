import { greyMagentaYellow } from '../balance/greyTriplet.ts';

/** Groups that metrics are taken over; a patch may belong to several. */
export const PATCH_GROUPS = [
  'all',
  'substrate',
  'solids',
  'chromatic solids',
  'black solid',
  'overprints',
  'greys',
  'grey scale',
  'black scale',
  'midtones',
  'chromatic midtones',
  'quarter tones',
  'three-quarter tones',
  'outer gamut',
  'tertiaries',
  'spot colours',
] as const;
export type PatchGroup = (typeof PATCH_GROUPS)[number];

/** Groups that a wedge need not have: their metrics are left out where it has none. */
export const OPTIONAL_GROUPS: ReadonlySet<PatchGroup> = new Set([
  'spot colours',
  'quarter tones',
  'three-quarter tones',
]);
/** A spot colour is judged by itself only; its inks are a means. */
export const SPOT_GROUPS: ReadonlySet<PatchGroup> = new Set(['spot colours']);

const NONE = 0.005;
const FULL = 0.995;
/** How far a grey of three inks may be from the triplet of its cyan. */
const GREY_WIDTH = 0.03;
/** How far it may be to be judged as a step of the grey scale: what whole per cent round away. */
const SCALE_WIDTH = 0.006;
const OUTER = 0.7;
/** Tone values that count as 50 %; where a chart has 40 or 70 instead, it has no midtones. */
const MIDTONE = [0.45, 0.55] as const;
const QUARTER = [0.195, 0.305] as const;
const THREE_QUARTER = [0.695, 0.805] as const;

/**
 * The groups of a CMYK patch by its device values. Greys are those of three inks near the triplet of ISO/TS 10128;
 * the grey scale is those of them that are at it, as its aims are for that triplet (10/10/10 is none), and the three
 * solids together; the black scale all of black alone; quarter and three-quarter tones are single inks of 20 to 30 and
 * of 70 to 80 %; outer gamut is what has no black, at most two inks and one of
 * them from 70 %.
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
  if (used.length === 1) {
    const colour = k < NONE;
    if (full) groups.add('solids').add(colour ? 'chromatic solids' : 'black solid');
    if (!colour) groups.add('black scale');
    if (used[0] >= QUARTER[0] && used[0] <= QUARTER[1]) groups.add('quarter tones');
    if (used[0] >= THREE_QUARTER[0] && used[0] <= THREE_QUARTER[1]) groups.add('three-quarter tones');
    if (used[0] >= MIDTONE[0] && used[0] <= MIDTONE[1]) {
      groups.add('midtones');
      if (colour) groups.add('chromatic midtones');
    }
  }
  if (used.length > 1 && full && k < NONE) groups.add('overprints');
  const grey = greyMagentaYellow(c);
  const off =
    k < NONE && chromatic.length === 3 ? Math.max(Math.abs(m - grey), Math.abs(y - grey)) : Infinity;
  if (off <= SCALE_WIDTH) groups.add('grey scale');
  if (off <= GREY_WIDTH && !full) groups.add('greys');
  if (k < NONE && chromatic.length > 0 && chromatic.length < 3 && Math.max(...chromatic) >= OUTER)
    groups.add('outer gamut');
  if (chromatic.length === 3 && off > GREY_WIDTH && !full) groups.add('tertiaries');
  return groups;
}
