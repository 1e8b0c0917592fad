/** A condition that a job could go to, and what it comes to there. */
export interface RankedPlace {
  readonly key: string;
  readonly standing: 'go' | 'mark' | 'stop';
  /** What it comes to, ΔE00. */
  readonly placed: { readonly mean: number };
}

/** ΔE00 that a condition with something to be seen to counts as farther away. */
export const MARKED_COUNTS = 0.5;

/** The nearest first; what something is to be seen to on counts as farther, and stopped conditions come last. */
export function rankPlaces<Place extends RankedPlace>(places: readonly Place[]): Place[] {
  const weight = ({ standing, placed }: Place): number =>
    placed.mean + (standing === 'mark' ? MARKED_COUNTS : 0) + (standing === 'stop' ? 1000 : 0);
  return [...places].sort((a, b) => weight(a) - weight(b));
}
