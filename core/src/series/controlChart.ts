import { mean, standardDeviation } from '../numerics/statistics.ts';

/** Checks that centre and σ are taken from. */
export const BASELINE_CHECKS = 10;
/** EWMA weight and CUSUM allowance, in σ. */
export const EWMA_WEIGHT = 0.2;
export const CUSUM_ALLOWANCE = 1.5;
/** The given least σ counts as much as so many checks when σ is estimated. */
const PRIOR_CHECKS = 6;

/** Widths of the limits, in σ: individuals, EWMA (of its own σ) and CUSUM. */
export interface ControlLimits {
  readonly individual: number;
  readonly ewma: number;
  readonly cusum: number;
}

/** What the checks of a series are charted against, in its own unit. */
export interface Baseline {
  readonly centre: number;
  readonly sigma: number;
}

/** Where the charts of a series stand after a check: all that the next one is charted by. */
export interface ChartState {
  /** Checks after the baseline. */
  readonly age: number;
  /** EWMA and the upper and lower CUSUM, in σ. */
  readonly smooth: number;
  readonly high: number;
  readonly low: number;
}

export const START: ChartState = { age: 0, smooth: 0, high: 0, low: 0 };

export type ControlKind = 'individual' | 'EWMA' | 'CUSUM';

/** A check as its series' charts see it. */
export interface ChartStep {
  readonly state: ChartState;
  /** Half width of the EWMA's limits, in σ. */
  readonly ewmaLimit: number;
  /** Charts that are over their limit. */
  readonly over: readonly ControlKind[];
}

/**
 * The mean of the first ten values, and their standard deviation, held from below by what the instrument scatters.
 * @returns undefined before there are ten values.
 */
export function baselineOf(values: ArrayLike<number>, leastSigma: number): Baseline | undefined {
  if (values.length < BASELINE_CHECKS) return undefined;
  const first = Array.from({ length: BASELINE_CHECKS }, (_, i) => values[i]);
  const sigma = Math.sqrt(
    (PRIOR_CHECKS * leastSigma ** 2 + (BASELINE_CHECKS - 1) * standardDeviation(first) ** 2) /
      (PRIOR_CHECKS + BASELINE_CHECKS - 1),
  );
  return { centre: mean(first), sigma };
}

/** Charts one more check of a series. */
export function stepChart(
  { age, smooth, high, low }: ChartState,
  value: number,
  { centre, sigma }: Baseline,
  limits: ControlLimits,
): ChartStep {
  const z = (value - centre) / sigma;
  const state: ChartState = {
    age: age + 1,
    smooth: EWMA_WEIGHT * z + (1 - EWMA_WEIGHT) * smooth,
    high: Math.max(0, high + z - CUSUM_ALLOWANCE),
    low: Math.min(0, low + z + CUSUM_ALLOWANCE),
  };
  const ewmaLimit = limits.ewma * ewmaSigma(state.age);
  const over: ControlKind[] = [];
  if (Math.abs(z) > limits.individual) over.push('individual');
  if (Math.abs(state.smooth) > ewmaLimit) over.push('EWMA');
  if (state.high > limits.cusum || state.low < -limits.cusum) over.push('CUSUM');
  return { state, ewmaLimit, over };
}

export interface ControlChart extends Baseline {
  /** In the series' own unit: half widths of the limits. */
  readonly individualLimit: number;
  readonly ewmaLimit: Float64Array;
  readonly ewma: Float64Array;
  /** Upper and lower sums in σ, and their limit. */
  readonly cusumHigh: Float64Array;
  readonly cusumLow: Float64Array;
  readonly cusumLimit: number;
  /** Charts that are over their limit at each check; nothing is judged within the baseline. */
  readonly over: readonly (readonly ControlKind[])[];
}

/**
 * Individuals, EWMA and CUSUM of one series against its baseline.
 * @param start where the charts stood before the first value after the baseline, where checks between are left out.
 * @returns undefined before there is a baseline.
 */
export function controlChart(
  values: ArrayLike<number>,
  leastSigma: number,
  limits: ControlLimits,
  start: ChartState = START,
): ControlChart | undefined {
  const baseline = baselineOf(values, leastSigma);
  if (baseline === undefined) return undefined;
  const { centre, sigma } = baseline;
  const count = values.length;
  const ewma = new Float64Array(count).fill(centre);
  const ewmaLimit = new Float64Array(count);
  const cusumHigh = new Float64Array(count);
  const cusumLow = new Float64Array(count);
  const over: (readonly ControlKind[])[] = Array.from({ length: BASELINE_CHECKS }, () => []);
  let state = start;
  for (let i = BASELINE_CHECKS; i < count; i++) {
    const step = stepChart(state, values[i], baseline, limits);
    state = step.state;
    ewma[i] = centre + state.smooth * sigma;
    ewmaLimit[i] = step.ewmaLimit * sigma;
    cusumHigh[i] = state.high;
    cusumLow[i] = state.low;
    over.push(step.over);
  }
  return {
    ...{ centre, sigma, ewma, ewmaLimit, cusumHigh, cusumLow, over },
    individualLimit: limits.individual * sigma,
    cusumLimit: limits.cusum,
  };
}

/** σ of an EWMA of independent values after so many, with the uncertainty of a centre from ten. */
function ewmaSigma(age: number): number {
  const w = EWMA_WEIGHT;
  const own = (w / (2 - w)) * (1 - (1 - w) ** (2 * age));
  const centre = (1 - (1 - w) ** age) ** 2 / BASELINE_CHECKS;
  return Math.sqrt(own + centre);
}
