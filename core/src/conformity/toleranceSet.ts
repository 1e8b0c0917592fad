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

/**
 * How sure it is that a limit is the one of the standard that its set names, as no copy of the standards is at hand:
 * commonly published, *taken over* from another part of the standard, or *chosen here* because none is published.
 */
export const CERTAINTIES = ['published', 'taken over', 'chosen here'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

/** One line of a tolerance set: data, so that a house can write its own. */
export interface ToleranceMetric {
  readonly group: PatchGroup;
  readonly statistic: Statistic;
  readonly quantity: Quantity;
  readonly limit: number;
  /** Of the sets that come with Melto; a house vouches for its own. */
  readonly certainty?: Certainty;
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

const DOUBTS: Readonly<Partial<Record<Certainty, string>>> = {
  'taken over': 'taken over from another part of the standard and not compared with the edition of this one',
  'chosen here': 'chosen by Melto, as no single number is published',
};

/** Which limits of a set are not known to be the standard's, a sentence for each reason. */
export function doubtfulLimits({ metrics }: Pick<ToleranceSet, 'metrics'>): string[] {
  return CERTAINTIES.flatMap((certainty) => {
    const reason = DOUBTS[certainty];
    const lines = metrics.filter((metric) => metric.certainty === certainty);
    if (reason === undefined || lines.length === 0) return [];
    if (lines.length === metrics.length) return [`All limits of this set are ${reason}.`];
    const names = lines.map(
      ({ group, quantity }) => `${group === 'all' ? 'all patches' : group} ${quantity}`,
    );
    return [`${lines.length === 1 ? 'One limit is' : 'Limits are'} ${reason}: ${names.join(', ')}.`];
  });
}
