import { labWeights } from '../colour/labWeights.ts';
import type { Lab } from '../colour/lab.ts';

/** What an eye says of a print beside its reference; the print is lighter, redder and so on than the reference. */
export const EYE_WORDS = [
  'lighter',
  'darker',
  'redder',
  'greener',
  'yellower',
  'bluer',
  'stronger',
  'duller',
] as const;
export type EyeWord = (typeof EYE_WORDS)[number];

/** Words that exclude each other. */
export const EYE_OPPOSITES: Readonly<Record<EyeWord, EyeWord>> = {
  lighter: 'darker',
  darker: 'lighter',
  redder: 'greener',
  greener: 'redder',
  yellower: 'bluer',
  bluer: 'yellower',
  stronger: 'duller',
  duller: 'stronger',
};

/** What was said of one colour; no word: the same. */
export interface EyeNote {
  /** Place of the colour in the list. */
  readonly colour: number;
  readonly words: readonly EyeWord[];
}

/** C* below which a colour has no strength to lose or to gain. */
export const GREY_CHROMA = 8;

/** Weights that make of a difference in L*, a*, b* about its ΔE00, along lightness, chroma and hue: row-major 3 × 3. */
export function eyeWeights([l, a, b]: Lab): Float64Array {
  const out = new Float64Array(9);
  labWeights(l, a, b, 1, out);
  return out;
}

/** A difference in L*, a*, b* as an eye weighs it. */
export function seenShift(weights: Float64Array, dl: number, da: number, db: number): Float64Array {
  return Float64Array.of(
    weights[0] * dl,
    weights[4] * da + weights[5] * db,
    weights[7] * da + weights[8] * db,
  );
}

/** Direction that some words point to for a colour, of length 1; undefined for no words, or where they take each other back. */
export function wordDirection(weights: Float64Array, words: readonly EyeWord[]): Float64Array | undefined {
  const sum = new Float64Array(3);
  for (const word of words) {
    const own = unit(directionOf(weights, word));
    if (own !== undefined) for (let axis = 0; axis < 3; axis++) sum[axis] += own[axis];
  }
  return unit(sum);
}

function directionOf(weights: Float64Array, word: EyeWord): Float64Array {
  switch (word) {
    case 'lighter':
      return seenShift(weights, 1, 0, 0);
    case 'darker':
      return seenShift(weights, -1, 0, 0);
    case 'redder':
      return seenShift(weights, 0, 1, 0);
    case 'greener':
      return seenShift(weights, 0, -1, 0);
    case 'yellower':
      return seenShift(weights, 0, 0, 1);
    case 'bluer':
      return seenShift(weights, 0, 0, -1);
    // The second axis of what an eye weighs is chroma.
    case 'stronger':
      return Float64Array.of(0, 1, 0);
    case 'duller':
      return Float64Array.of(0, -1, 0);
  }
}

function unit(vector: Float64Array): Float64Array | undefined {
  const length = Math.hypot(...vector);
  return length < 1e-6 ? undefined : vector.map((value) => value / length);
}
