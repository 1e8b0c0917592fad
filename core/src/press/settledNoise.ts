import type { UnitMove, UnitSheet } from './nextMove.ts';

/** Pairs of zones from which on the run's own noise is told rather than the usual one. */
const ENOUGH = 24;

/**
 * Standard deviation of a density from one settled sheet to the next, from sheets that follow each other without a move
 * between them; `usual` where there are too few. Never below `least`, since a quiet hour is no better instrument.
 */
export function settledNoise(
  sheets: readonly UnitSheet[],
  moves: readonly UnitMove[],
  settle: number,
  { usual, least }: { readonly usual: number; readonly least: number },
): number {
  let sum = 0;
  let count = 0;
  for (let at = 1; at < sheets.length; at++) {
    const [one, two] = [sheets[at - 1], sheets[at]];
    const disturbed = moves.some(
      ({ impression }) => impression < two.impression && impression + settle > one.impression,
    );
    if (disturbed) continue;
    for (let zone = 0; zone < one.density.length; zone++) {
      const change = two.density[zone] - one.density[zone];
      if (!Number.isFinite(change)) continue;
      sum += change * change;
      count++;
    }
  }
  return count < ENOUGH ? usual : Math.max(least, Math.sqrt(sum / (2 * count)));
}
