import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { isSpot } from './checkDetail.ts';
import type { CheckedPatch } from './checkDetail.ts';

/** A check with the colours that it judged. */
export interface SpotCheck {
  readonly madeMs: number;
  readonly patches: readonly Pick<CheckedPatch, 'name' | 'device' | 'uncorrected' | 'measured' | 'deltaE'>[];
}

/** A spot colour over the checks that judged it. */
export interface SpotOverTime {
  readonly name: string;
  readonly aim: Lab;
  /** As it was measured last. */
  readonly measured: Lab;
  /** ΔE00 to its aim, for each check. */
  readonly deltaE: readonly number[];
  /** ΔE00 of what was measured last to what was measured first. */
  readonly moved: number;
}

/** Spot colours of one list over several checks. */
export interface SpotsOverTime {
  readonly madeMs: readonly number[];
  readonly colours: readonly SpotOverTime[];
}

/**
 * The spot colours of the newest of some checks over all that judged the same ones: the same names with the same aims.
 * Undefined where fewer than two did.
 * @param checks the newest first.
 */
export function spotsOverTime(checks: readonly SpotCheck[]): SpotsOverTime | undefined {
  const [newest] = checks;
  const wanted = newest === undefined ? '' : listOf(newest);
  if (wanted === '') return undefined;
  const alike = checks.filter((check) => listOf(check) === wanted).reverse();
  if (alike.length < 2) return undefined;
  const spots = alike.map(({ patches }) => new Map(patches.filter(isSpot).map((spot) => [spot.name, spot])));
  const [first, last] = [spots[0], spots[spots.length - 1]];
  return {
    madeMs: alike.map(({ madeMs }) => madeMs),
    colours: [...last.values()]
      .map(({ name, uncorrected, measured }): SpotOverTime => ({
        ...{ name, aim: uncorrected, measured },
        deltaE: spots.map((own) => own.get(name)?.deltaE ?? NaN),
        moved: deltaE2000(first.get(name)?.measured ?? measured, measured),
      }))
      .sort((a, b) => b.moved - a.moved),
  };
}

/** What tells one list of spot colours from another: their names and what they should be, on any paper. */
const listOf = ({ patches }: SpotCheck): string =>
  patches
    .filter(isSpot)
    .map(({ name, uncorrected }) => `${name} ${uncorrected.map((value) => value.toFixed(2)).join(' ')}`)
    .sort()
    .join('\n');
