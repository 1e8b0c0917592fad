import { baselineOf, stepChart } from './controlChart.ts';
import type { Baseline, ChartState, ControlLimits } from './controlChart.ts';

/** One charted quantity of figures that are read again and again: of a watch, or of a run. */
export interface Series {
  /** What cannot be told from nothing: the instrument's own scatter. */
  readonly leastSigma: number;
  readonly value: (figures: Float64Array) => number;
}

/** Baselines of all series from the first figures, in their order; undefined before there are enough. */
export function baselinesOf(
  set: readonly Series[],
  figures: readonly Float64Array[],
): readonly Baseline[] | undefined {
  const found = set.map(({ leastSigma, value }) => baselineOf(figures.map(value), leastSigma));
  return found.some((baseline) => baseline === undefined) ? undefined : (found as Baseline[]);
}

/** Where the charts of all series stand before the first check after the baseline. */
export function startOfSet(set: readonly Series[]): Float64Array {
  return new Float64Array(set.length * FIELDS);
}

/** Charts one more check of all series. */
export function stepSet(
  set: readonly Series[],
  baselines: readonly Baseline[],
  state: Float64Array,
  figures: Float64Array,
  limits: ControlLimits,
): { readonly state: Float64Array; readonly alarm: boolean } {
  const next = new Float64Array(state.length);
  let alarm = false;
  for (const [i, { value }] of set.entries()) {
    const step = stepChart(stateOf(state, i), value(figures), baselines[i], limits);
    const { age, smooth, high, low } = step.state;
    next.set([age, smooth, high, low], FIELDS * i);
    alarm ||= step.over.length > 0;
  }
  return { state: next, alarm };
}

const FIELDS = 4;

/** Where the charts of one series stand. */
export function stateOf(state: ArrayLike<number>, series: number): ChartState {
  const at = FIELDS * series;
  return { age: state[at], smooth: state[at + 1], high: state[at + 2], low: state[at + 3] };
}
