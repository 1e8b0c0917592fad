import type { Lab } from '../colour/lab.ts';
import type { EyeNote } from './eyeWords.ts';
import { eyeWeights, wordDirection } from './eyeWords.ts';

/** What the notes of an eye can point to. */
export const EYE_CAUSES = ['profile', 'brightener', 'light', 'ink', 'reach'] as const;
export type EyeCause = (typeof EYE_CAUSES)[number];

/** One way in which a cause would show on the page. */
export interface EyeHypothesis {
  readonly cause: EyeCause;
  /** What is supposed, in words. */
  readonly words: string;
  /**
   * Of each colour, as an eye weighs it (`seenShift`); null where it cannot be told in which way the colour moves, only
   * that it may.
   */
  readonly shifts: readonly (Float64Array | null)[];
}

export interface PointedCause {
  readonly cause: EyeCause;
  /** Share of what speaks for it, all causes together 1. */
  readonly share: number;
  /** The way that fits best. */
  readonly words: string;
}

/** Shift, about ΔE00, that every second eye calls a difference edge to edge, and how much eyes differ in it. */
const NOTICED = 1.4;
const NOTICED_SPREAD = 0.8;
/** Notes that say nothing: a slip, another patch, tired eyes. */
const SLIPS = 0.06;
/** How narrowly words follow the direction of a shift, for a shift of 1 and at most. */
const NARROW = 1.1;
const NARROW_MOST = 4;
/** A colour that may move in any way is noted as another as often as this. */
const MAY_MOVE = 0.45;

/**
 * Which causes speak for what an eye noted, the likeliest first. Each way in which a cause would show gives a chance to
 * each note: whether the difference would be noticed, and whether the words point its way. Ways of a cause share its
 * weight evenly.
 */
export function pointOut(
  colours: readonly Lab[],
  notes: readonly EyeNote[],
  hypotheses: readonly EyeHypothesis[],
): PointedCause[] {
  const scores = hypotheses.map((hypothesis) => ({ hypothesis, score: score(colours, notes, hypothesis) }));
  const most = Math.max(...scores.map((own) => own.score));
  const causes = [...new Set(hypotheses.map(({ cause }) => cause))].map((cause) => {
    const own = scores.filter(({ hypothesis }) => hypothesis.cause === cause);
    const weight = own.reduce((sum, one) => sum + Math.exp(one.score - most), 0) / own.length;
    const best = own.reduce((before, one) => (one.score > before.score ? one : before));
    return { cause, weight, words: best.hypothesis.words };
  });
  const all = causes.reduce((sum, { weight }) => sum + weight, 0);
  return causes
    .map(({ cause, weight, words }) => ({ cause, share: weight / all, words }))
    .sort((a, b) => b.share - a.share);
}

function score(colours: readonly Lab[], notes: readonly EyeNote[], { shifts }: EyeHypothesis): number {
  let sum = 0;
  for (const { colour, words } of notes) {
    const lab = colours[colour];
    const said = wordDirection(eyeWeights(lab), words);
    sum += Math.log(SLIPS / 2 + (1 - SLIPS) * chance(said, shifts[colour]));
  }
  return sum;
}

/** Chance of a note: of saying the same, or of a direction, whose density over all is 1 where it is any. */
function chance(said: Float64Array | undefined, shift: Float64Array | null): number {
  if (shift === null) return said === undefined ? 1 - MAY_MOVE : MAY_MOVE;
  const size = Math.hypot(...shift);
  const noticed = normalShare((size - NOTICED) / NOTICED_SPREAD);
  if (said === undefined) return 1 - noticed;
  if (size < 1e-6) return noticed;
  const cosine = (said[0] * shift[0] + said[1] * shift[1] + said[2] * shift[2]) / size;
  const narrow = Math.min(NARROW_MOST, NARROW * size);
  return noticed * (narrow / Math.sinh(narrow)) * Math.exp(narrow * cosine);
}

/** Share of a standard normal below a value, by a logistic that is within 0.01 of it. */
const normalShare = (value: number): number => 1 / (1 + Math.exp(-1.702 * value));
