import type { Lab } from '../colour/lab.ts';
import { largest, mean, percentile, standardDeviation } from '../numerics/statistics.ts';
import { PAIR_QUANTITIES } from './colourDifferences.ts';
import { OPTIONAL_GROUPS, patchGroups, SPOT_GROUPS } from './patchGroups.ts';
import type { PatchGroup } from './patchGroups.ts';
import { scaleDifferences } from './scaleDifferences.ts';
import { metric } from '../judgement/metric.ts';
import { worstVerdict } from '../judgement/verdict.ts';
import type { Verdict } from '../judgement/verdict.ts';
import type { Quantity, Statistic, ToleranceMetric, ToleranceSet } from './toleranceSet.ts';

export interface ColourPair {
  readonly device: ArrayLike<number>;
  /** Name of the spot colour that it is. */
  readonly spot?: string;
  readonly aim: Lab;
  readonly measured: Lab;
  /** The aim is an estimate, completed from published solids: it is shown, and gives no verdict. */
  readonly estimated?: boolean;
}

export interface JudgedMetric extends ToleranceMetric {
  /** NaN where the check has no patch of the group. */
  readonly value: number;
  readonly margin: number;
  readonly verdict: Verdict;
  readonly count: number;
  /** Row of the patch that is farthest off in this quantity. */
  readonly worst: number | undefined;
  /** Patches whose aim is an estimate, where the quantity depends on it: the metric has no verdict then. */
  readonly estimated: number;
}

/**
 * What an estimated aim does not bend: the weighted differences go by the sheet's own paper and darkest step, and tone
 * values are published.
 */
const KNOWN_WITHOUT_AIM: ReadonlySet<Quantity> = new Set(['wΔL', 'wΔCh', 'ΔTV']);

export interface Judgement {
  readonly verdict: Verdict;
  readonly metrics: readonly JudgedMetric[];
  /** ΔE00 of each patch. */
  readonly deltaE: Float64Array;
}

/**
 * Judges measured colours against aims. Values are judged unrounded; one that equals its limit is within. A metric
 * whose group has no patch is not judged, nor one over estimated aims, and neither then is the whole, unless another
 * metric fails; one of a group that a check need not have is left out then.
 * @param groups of the pairs, where they are known already.
 */
export function judgeColours(
  pairs: readonly ColourPair[],
  tolerances: Pick<ToleranceSet, 'metrics'>,
  groups = groupsOf(pairs),
): Judgement {
  const valuesOf = metricValues(pairs, groups);
  const asked = tolerances.metrics.filter(
    ({ group }) => !OPTIONAL_GROUPS.has(group) || groups.some((own) => own.has(group)),
  );
  const metrics = asked.map((line): JudgedMetric => {
    const { rows, values } = valuesOf(line.group, line.quantity);
    const value = values.length === 0 ? NaN : STATISTIC_OF[line.statistic](values);
    const { margin, verdict } = metric(line.group, value, line.limit);
    const sizes = values.map(Math.abs);
    const estimated = KNOWN_WITHOUT_AIM.has(line.quantity)
      ? 0
      : rows.filter((row) => pairs[row].estimated === true).length;
    return {
      ...line,
      value,
      margin,
      verdict: estimated > 0 ? 'not-judged' : verdict,
      estimated,
      count: rows.length,
      worst: rows.length === 0 ? undefined : rows[sizes.indexOf(largest(sizes))],
    };
  });
  return {
    verdict: worstVerdict(metrics.map(({ verdict }) => verdict)),
    metrics,
    deltaE: Float64Array.from(pairs, ({ aim, measured }) => PAIR_QUANTITIES.ΔE00(aim, measured)),
  };
}

/** The groups of each pair, by its device values, or as a spot colour. */
export function groupsOf(pairs: readonly ColourPair[]): readonly ReadonlySet<PatchGroup>[] {
  return pairs.map(({ device, spot }) => (spot === undefined ? patchGroups(device) : SPOT_GROUPS));
}

/** Rows of a group that have a quantity, with its values, signed where it has a sign. */
export function metricValues(
  pairs: readonly ColourPair[],
  groups = groupsOf(pairs),
): (group: PatchGroup, quantity: Quantity) => { readonly rows: number[]; readonly values: number[] } {
  const scales = scaleDifferences(pairs, groups);
  const valueOf = (row: number, quantity: Quantity): number => {
    switch (quantity) {
      case 'ΔTV':
        return scales.toneValue(row);
      case 'wΔL':
        return scales.weightedL(row);
      case 'wΔCh':
        return scales.weightedCh(row);
      default:
        return PAIR_QUANTITIES[quantity](pairs[row].aim, pairs[row].measured);
    }
  };
  // Groups overlap: each value is worked out once.
  const known = new Map<Quantity, Map<number, number>>();
  const value = (row: number, quantity: Quantity): number => {
    let own = known.get(quantity);
    if (own === undefined) known.set(quantity, (own = new Map()));
    let found = own.get(row);
    if (found === undefined) own.set(row, (found = valueOf(row, quantity)));
    return found;
  };
  return (group, quantity) => {
    const all = [...groups.keys()]
      .filter((row) => groups[row].has(group))
      .map((row) => ({ row, value: value(row, quantity) }))
      .filter((each) => Number.isFinite(each.value));
    return { rows: all.map(({ row }) => row), values: all.map((each) => each.value) };
  };
}

/** Of sizes, but for *spread*, which goes by the signed values. */
export const STATISTIC_OF: Readonly<Record<Statistic, (values: readonly number[]) => number>> = {
  mean: (values) => mean(values.map(Math.abs)),
  median: (values) => percentile(values.map(Math.abs), 50),
  'standard deviation': (values) => standardDeviation(values.map(Math.abs)),
  '90th percentile': (values) => percentile(values.map(Math.abs), 90),
  '95th percentile': (values) => percentile(values.map(Math.abs), 95),
  'mean of the tail': (values) => {
    const sizes = values.map(Math.abs);
    const from = percentile(sizes, 95);
    return mean(sizes.filter((size) => size >= from));
  },
  largest: (values) => largest(values.map(Math.abs)),
  spread: (values) => Math.max(...values) - Math.min(...values),
};
