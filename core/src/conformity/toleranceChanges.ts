import type { ToleranceMetric } from './toleranceSet.ts';

/** What an edit did to a tolerance set. */
export interface ToleranceChanges {
  readonly added: readonly ToleranceMetric[];
  readonly removed: readonly ToleranceMetric[];
  readonly moved: readonly { readonly metric: ToleranceMetric; readonly from: number }[];
}

const keyOf = ({ group, statistic, quantity }: ToleranceMetric): string =>
  `${group}|${statistic}|${quantity}`;

/** Metrics that are new, gone, or have another limit; their order does not count. */
export function toleranceChanges(
  before: readonly ToleranceMetric[],
  after: readonly ToleranceMetric[],
): ToleranceChanges {
  const old = new Map(before.map((metric) => [keyOf(metric), metric]));
  const now = new Set(after.map(keyOf));
  return {
    added: after.filter((metric) => !old.has(keyOf(metric))),
    removed: before.filter((metric) => !now.has(keyOf(metric))),
    moved: after.flatMap((metric) => {
      const from = old.get(keyOf(metric))?.limit;
      return from === undefined || from === metric.limit ? [] : [{ metric, from }];
    }),
  };
}
