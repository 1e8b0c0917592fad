import type { Lab } from '../colour/lab.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import { labAt } from '../colour/labAt.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';

/** Where the values of a scan belong on the bar. */
export interface BarMatch {
  /** Patch of the bar for each value of the scan; -1 where it is none of them. */
  readonly patches: Int32Array;
  /** The sheet or the instrument lay the other way round. */
  readonly turned: boolean;
  /** Mean ΔE*ab of the matched values to what was expected. */
  readonly off: number;
  /** By how much the other way round would be worse. */
  readonly margin: number;
}

/** Cost of a patch without a value, or a value without a patch, in ΔE*ab. */
const GAP = 22;
/** A difference says no more than this: a patch may be far off before the press is set. */
const MOST = 60;
/** Both ways round must differ by this mean cost, else neither is taken. */
const LEAST_MARGIN = 3;
/** Matched values further off than this on average are not of this bar. */
const MOST_OFF = 25;
/** Values and patches that are compared. */
const MOST_CELLS = 4_000_000;

/**
 * Finds the values of a scan on a bar, whichever way round the sheet and the instrument lay, with patches that are missing
 * and values that are none: both orders are aligned (Needleman and Wunsch), the better one is taken where it is clear.
 * @param scan Lab of the values in the order in which they were read. @param expected Lab of the bar's patches, NaN where
 * nothing is known.
 */
export function matchBar(scan: ArrayLike<number>, expected: ArrayLike<number>): Result<BarMatch> {
  const count = scan.length / 3;
  const wanted = expected.length / 3;
  if (count === 0) return failure(unlike('a scan of at least one patch', 'none'));
  if (count * wanted > MOST_CELLS) return failure(unlike(`at most ${MOST_CELLS} pairs`, `${count} values`));
  const forth = align(scan, expected, (i) => i);
  const back = align(scan, expected, (i) => count - 1 - i);
  const [best, other, turned] = back.cost < forth.cost ? [back, forth, true] : [forth, back, false];
  const margin = (other.cost - best.cost) / Math.max(count, wanted);
  if (best.matched === 0 || best.off / best.matched > MOST_OFF)
    return failure(
      unlike('values near those of the bar', `${best.matched} of ${count} that could be its patches`),
    );
  if (margin < LEAST_MARGIN)
    return failure({
      code: 'bar.way-round',
      path: 'patches',
      expected: 'a bar that is not the same both ways round, or the patches told by their numbers',
      found: 'both ways round alike',
    });
  return success({ patches: best.patches, turned, off: best.off / best.matched, margin });
}

function unlike(expected: string, found: string): Issue {
  return { code: 'bar.match', path: 'patches', expected, found };
}

interface Alignment {
  readonly cost: number;
  readonly patches: Int32Array;
  readonly matched: number;
  readonly off: number;
}

function align(
  scan: ArrayLike<number>,
  expected: ArrayLike<number>,
  place: (i: number) => number,
): Alignment {
  const rows = scan.length / 3;
  const columns = expected.length / 3;
  const width = columns + 1;
  const costs = new Float64Array((rows + 1) * width);
  const from = new Uint8Array((rows + 1) * width);
  const differ = (i: number, patch: number): number =>
    difference(labAt(scan, place(i)), labAt(expected, patch));
  for (let column = 1; column <= columns; column++) {
    costs[column] = GAP * column;
    from[column] = 2;
  }
  for (let row = 1; row <= rows; row++) {
    costs[row * width] = GAP * row;
    from[row * width] = 1;
    for (let column = 1; column <= columns; column++) {
      const at = row * width + column;
      const pair = costs[at - width - 1] + differ(row - 1, column - 1);
      const extra = costs[at - width] + GAP;
      const missing = costs[at - 1] + GAP;
      const least = Math.min(pair, extra, missing);
      costs[at] = least;
      from[at] = least === pair ? 0 : least === extra ? 1 : 2;
    }
  }
  const patches = new Int32Array(rows).fill(-1);
  let [matched, off] = [0, 0];
  for (let row = rows, column = columns; row > 0 || column > 0;) {
    const way = from[row * width + column];
    if (way === 0) {
      patches[place(row - 1)] = column - 1;
      matched++;
      off += differ(row - 1, column - 1);
    }
    if (way !== 2) row--;
    if (way !== 1) column--;
  }
  return { cost: costs[rows * width + columns], patches, matched, off };
}

function difference(found: Lab, expected: Lab): number {
  // Where nothing is known of a patch, or a value is none, either fits half as well as a gap.
  const far = deltaEAb(found, expected);
  return Number.isFinite(far) ? Math.min(MOST, far) : GAP / 2;
}
