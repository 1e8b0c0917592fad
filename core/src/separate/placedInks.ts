import { baseInks } from '../device/baseInks.ts';
import type { Process } from '../device/process.ts';
import { extraInksOf } from './extraInks.ts';
import type { ExtraInks } from './extraInks.ts';

/** Extra inks in their places, or why they have none, in a sentence. */
export type PlacedInks = { readonly extra: ExtraInks } | { readonly issue: string };

/**
 * Where they take part by a model: hues are those over its paper.
 * @param lab Lab of a row of device values, written to `out`.
 */
export function placeInksByModel(
  process: Process,
  lab: (device: Float64Array, out: Float64Array) => void,
  replace: number,
): PlacedInks {
  const labOf = (full: readonly number[]): Float64Array => {
    const device = new Float64Array(process.channels.length);
    for (const ink of full) device[ink] = 1;
    const out = new Float64Array(3);
    lab(device, out);
    return out;
  };
  const [, paperA, paperB] = labOf([]);
  const overPaper = (full: readonly number[]): number[] => {
    const [l, a, b] = labOf(full);
    return [l, a - paperA, b - paperB];
  };
  return placeInks(process, overPaper, replace);
}

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
