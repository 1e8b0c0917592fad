import { deltaE2000 } from '../colour/deltaE2000.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import type { Lab } from '../colour/lab.ts';
import { largest, mean, percentile } from '../numerics/statistics.ts';
import { patchGroups } from './patchGroups.ts';
import type { PatchGroup } from './patchGroups.ts';
import { metric, worstVerdict } from './shortCheck.ts';
import type { Verdict } from './shortCheck.ts';
import type { Quantity, Statistic, ToleranceMetric, ToleranceSet } from './toleranceSet.ts';

export interface ColourPair {
  readonly device: ArrayLike<number>;
  readonly aim: Lab;
  readonly measured: Lab;
}

export interface JudgedMetric extends ToleranceMetric {
  /** NaN where the check has no patch of the group. */
  readonly value: number;
  readonly margin: number;
  readonly verdict: Verdict;
  readonly count: number;
  /** Row of the patch that is farthest off in this quantity. */
  readonly worst: number | undefined;
}

export interface Judgement {
  readonly verdict: Verdict;
  readonly metrics: readonly JudgedMetric[];
  /** ΔE00 of each patch. */
  readonly deltaE: Float64Array;
}

/**
 * Judges measured colours against aims. Values are judged unrounded; one that equals its limit is within. A metric
 * whose group has no patch is not judged, and neither then is the whole, unless another metric fails.
 */
export function judgeColours(pairs: readonly ColourPair[], tolerances: ToleranceSet): Judgement {
  const groups = pairs.map(({ device }) => patchGroups(device));
  const rowsOf = (group: PatchGroup): number[] => [...groups.keys()].filter((row) => groups[row].has(group));
  const metrics = tolerances.metrics.map((line): JudgedMetric => {
    const rows = rowsOf(line.group);
    const values = rows.map((row) => SIZES[line.quantity](pairs[row].aim, pairs[row].measured));
    const value = rows.length === 0 ? NaN : STATISTICS[line.statistic](values);
    const { margin, verdict } = metric(line.group, value, line.limit);
    return {
      ...line,
      value,
      margin,
      verdict,
      count: rows.length,
      worst: rows.length === 0 ? undefined : rows[values.indexOf(largest(values))],
    };
  });
  return {
    verdict: worstVerdict(metrics.map(({ verdict }) => verdict)),
    metrics,
    deltaE: Float64Array.from(pairs, ({ aim, measured }) => deltaE2000(aim, measured)),
  };
}

const SIZES: Readonly<Record<Quantity, (aim: Lab, measured: Lab) => number>> = {
  ΔE00: deltaE2000,
  'ΔE*ab': deltaEAb,
  ΔCh: (aim, measured) => Math.hypot(measured[1] - aim[1], measured[2] - aim[2]),
  // CIE 15: ΔH*ab = 2·√(C₁C₂)·sin(Δh/2), here its size.
  ΔH: (aim, measured) => {
    const chroma = Math.hypot(measured[1], measured[2]) - Math.hypot(aim[1], aim[2]);
    const squared = (measured[1] - aim[1]) ** 2 + (measured[2] - aim[2]) ** 2 - chroma ** 2;
    return Math.sqrt(Math.max(0, squared));
  },
  ΔL: (aim, measured) => Math.abs(measured[0] - aim[0]),
};

const STATISTICS: Readonly<Record<Statistic, (values: readonly number[]) => number>> = {
  mean,
  median: (values) => percentile(values, 50),
  '90th percentile': (values) => percentile(values, 90),
  '95th percentile': (values) => percentile(values, 95),
  largest,
};
