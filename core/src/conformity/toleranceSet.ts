import type { PatchGroup } from './patchGroups.ts';

/** What is compared between aim and measured colour; all are sizes, without sign. */
export type Quantity = 'ΔE00' | 'ΔE*ab' | 'ΔCh' | 'ΔH' | 'ΔL';
/** How a group's values become one; percentiles interpolate linearly between order statistics. */
export type Statistic = 'mean' | 'median' | '90th percentile' | '95th percentile' | 'largest';

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
}
