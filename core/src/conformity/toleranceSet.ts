import type { PatchGroup } from './patchGroups.ts';

/**
 * What is compared between aim and measured colour. ΔTV is the difference of tone values in per cent; wΔL and wΔCh are
 * the weighted differences of the near-neutral scales to their own aims, whatever the aim set says.
 */
export const QUANTITIES = [
  'ΔE00',
  'ΔE*ab',
  'ΔE94',
  'ΔE CMC(1:1)',
  'ΔL',
  'Δa',
  'Δb',
  'ΔC',
  'ΔH',
  'ΔCh',
  'ΔTV',
  'wΔL',
  'wΔCh',
] as const;
export type Quantity = (typeof QUANTITIES)[number];

/**
 * How a group's values become one. Percentiles interpolate linearly between order statistics; *mean of the tail* is
 * that of the values beyond the 95th percentile; *spread* is the largest minus the least of the signed values.
 */
export const STATISTICS = [
  'mean',
  'median',
  'standard deviation',
  '90th percentile',
  '95th percentile',
  'mean of the tail',
  'largest',
  'spread',
] as const;
export type Statistic = (typeof STATISTICS)[number];

/** One line of a tolerance set: data, so that a house can write its own. */
export interface ToleranceMetric {
  readonly group: PatchGroup;
  readonly statistic: Statistic;
  readonly quantity: Quantity;
  readonly limit: number;
}

export interface ToleranceSet {
  readonly id: string;
  readonly name: string;
  /** Where its values come from. */
  readonly source: string;
  readonly metrics: readonly ToleranceMetric[];
  /** The substrate is judged against the uncorrected aim even where the others are corrected. */
  readonly substrateUncorrected: boolean;
  /** What the standard asks for that a single sheet cannot tell, in words. */
  readonly notJudged?: readonly string[];
}
