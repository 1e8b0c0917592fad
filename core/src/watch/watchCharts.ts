import { BASELINE_CHECKS, controlChart } from '../series/controlChart.ts';
import type { ControlChart, ControlLimits } from '../series/controlChart.ts';
import { startOfSet, stateOf } from '../series/seriesSet.ts';
import { WATCH_LIMITS } from './data/watchLimits.ts';
import { watchCause } from './watchCause.ts';
import type { WatchCause } from './watchCause.ts';
import { WATCH_SERIES } from './watchSeries.ts';
import type { WatchSeries } from './watchSeries.ts';

export interface ChartedSeries {
  readonly series: WatchSeries;
  readonly values: Float64Array;
  /** Undefined within the baseline. */
  readonly chart: ControlChart | undefined;
}

export interface WatchCharts {
  readonly series: readonly ChartedSeries[];
  /** Checks with at least one value over a limit. */
  readonly alarms: readonly number[];
  /** Series that are over at the latest check, the farthest first. */
  readonly over: readonly {
    readonly series: WatchSeries;
    readonly charts: readonly string[];
    readonly shift: number;
  }[];
  /** What the latest check's alarm looks like. */
  readonly cause: WatchCause | undefined;
}

/**
 * All control charts of a watch over its checks, oldest first, and what they say.
 * @param before where the charts stood before the first check after the baseline, where checks between are left out.
 */
export function watchCharts(
  checks: readonly Float64Array[],
  limits: ControlLimits = WATCH_LIMITS,
  before: ArrayLike<number> = startOfSet(WATCH_SERIES),
): WatchCharts {
  const series = WATCH_SERIES.map((each, i): ChartedSeries => {
    const values = Float64Array.from(checks, (figures) => each.value(figures));
    return { series: each, values, chart: controlChart(values, each.leastSigma, limits, stateOf(before, i)) };
  });
  const alarms = [...checks.keys()].filter((check) =>
    series.some(({ chart }) => chart !== undefined && chart.over[check].length > 0),
  );
  const last = checks.length - 1;
  const over = series
    .flatMap(({ series: own, values, chart }) =>
      chart === undefined || chart.over[last].length === 0
        ? []
        : [
            {
              series: own,
              charts: chart.over[last],
              shift: values[last] - chart.centre,
              far: Math.abs(values[last] - chart.centre) / chart.sigma,
            },
          ],
    )
    .sort((a, b) => b.far - a.far);
  return {
    series,
    alarms,
    over: over.map(({ series: own, charts, shift }) => ({ series: own, charts, shift })),
    cause: over.length > 0 ? watchCause(checks, BASELINE_CHECKS) : undefined,
  };
}
