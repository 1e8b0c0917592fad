import { baseInks } from '../device/baseInks.ts';
import type { Process } from '../device/process.ts';
import { extraInksOf } from './extraInks.ts';
import type { ExtraInks } from './extraInks.ts';

/** Extra inks in their places, or why they have none, in a sentence. */
export type PlacedInks = { readonly extra: ExtraInks } | { readonly issue: string };

/**
 * Where the extra inks of a device take part.
 * @param labOf Lab of some channels printed in full over each other, of none for the paper.
 */
export function placeInks(
  process: Process,
  labOf: (full: readonly number[]) => readonly number[],
  replace: number,
): PlacedInks {
  const roles = baseInks(process);
  if (roles === undefined)
    return { issue: `${process.name} has not all of C, M, Y and K, which a separation is made of` };
  const placed = extraInksOf(
    roles.base,
    roles.black,
    process.channels.length,
    { solid: (ink) => labOf([ink]), overprint: (one, other) => labOf([one, other]) },
    replace,
  );
  if (!('as' in placed)) return { extra: placed };
  const [own, other] = [placed.ink, placed.as].map((ink) => process.channels[ink].name);
  return { issue: `${own} has the hue of ${other}: join the two as light and full ink first` };
}
