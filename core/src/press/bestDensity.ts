import type { Lab } from '../colour/lab.ts';
import { goldenSection } from '../numerics/goldenSection.ts';
import { thicknessOf } from './thicknessLine.ts';
import type { ThicknessLine } from './thicknessLine.ts';

/** How far the search goes from the density that was read. */
const REACH = 0.6;
const STEP = 0.04;
/** To this fraction of a density the least difference and the edges are found; so many golden sections of two steps. */
const FINE = 1e-4;
const ROUNDS = 14;

export type ColourDifference = (a: Lab, b: Lab) => number;

/** What density can do for a solid. */
export interface BestDensity {
  /** Change of density at which the solid comes nearest to its aim. */
  readonly change: number;
  /** Colour difference as read, and at that density. */
  readonly now: number;
  readonly best: number;
  /**
   * Changes between which the difference stays within the tolerance; none where it is met at no density. The ends of the
   * search are told where it is met beyond them.
   */
  readonly within: readonly [number, number] | undefined;
}

/**
 * The density at which a solid comes nearest to its aim, by the light that its ink has at other thicknesses.
 * @param solid light as read. @param labOf Lab of such light. @param tolerance in units of `difference`.
 */
export function bestDensity(
  line: ThicknessLine,
  labOf: (light: Float64Array) => Lab,
  solid: ArrayLike<number>,
  aim: Lab,
  difference: ColourDifference,
  tolerance: number,
): BestDensity {
  const light = thicknessOf(line, solid);
  const at = (change: number): number => difference(aim, labOf(light(change)));
  const steps = Math.round(REACH / STEP);
  let least = 0;
  let best = Infinity;
  for (let i = -steps; i <= steps; i++) {
    const value = at(i * STEP);
    if (value < best) [best, least] = [value, i * STEP];
  }
  const change = goldenSection(at, least - STEP, least + STEP, ROUNDS);
  best = at(change);
  return {
    change,
    now: at(0),
    best,
    within: best > tolerance ? undefined : [edge(at, change, -1, tolerance), edge(at, change, 1, tolerance)],
  };
}

/** How far from the best density to one side the tolerance is kept without a break. */
function edge(at: (x: number) => number, from: number, side: -1 | 1, tolerance: number): number {
  let inside = from;
  for (let x = from + side * STEP; Math.abs(x) <= REACH + 1e-9; x += side * STEP) {
    if (at(x) > tolerance) {
      let outside = x;
      while (Math.abs(outside - inside) > FINE) {
        const middle = (inside + outside) / 2;
        if (at(middle) > tolerance) outside = middle;
        else inside = middle;
      }
      return inside;
    }
    inside = x;
  }
  return inside;
}
