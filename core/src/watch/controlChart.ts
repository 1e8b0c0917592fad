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

export interface ControlChart {
  readonly centre: number;
  readonly sigma: number;
  /** In the series' own unit: half widths of the limits. */
  readonly individualLimit: number;
  readonly ewmaLimit: Float64Array;
  readonly ewma: Float64Array;
  /** Upper and lower sums in σ, and their limit. */
  readonly cusumHigh: Float64Array;
  readonly cusumLow: Float64Array;
  readonly cusumLimit: number;
  /** Charts that are over their limit at each check; nothing is judged within the baseline. */
  readonly over: readonly (readonly ('individual' | 'EWMA' | 'CUSUM')[])[];
}

/**
 * Individuals, EWMA and CUSUM of one series against the mean of its first ten values. σ is their standard deviation,
 * held from below by what the instrument scatters.
 * @returns undefined before there are ten values.
 */
export function controlChart(
  values: ArrayLike<number>,
  leastSigma: number,
  limits: ControlLimits,
): ControlChart | undefined {
  const count = values.length;
  if (count < BASELINE_CHECKS) return undefined;
  const baseline = Array.from({ length: BASELINE_CHECKS }, (_, i) => values[i]);
  const centre = mean(baseline);
  const sigma = Math.sqrt(
    (PRIOR_CHECKS * leastSigma ** 2 + (BASELINE_CHECKS - 1) * standardDeviation(baseline) ** 2) /
      (PRIOR_CHECKS + BASELINE_CHECKS - 1),
  );
  const ewma = new Float64Array(count);
  const ewmaLimit = new Float64Array(count);
  const cusumHigh = new Float64Array(count);
  const cusumLow = new Float64Array(count);
  const over: ('individual' | 'EWMA' | 'CUSUM')[][] = [];
  let smooth = 0;
  for (let i = 0; i < count; i++) {
    const z = (values[i] - centre) / sigma;
    const own: ('individual' | 'EWMA' | 'CUSUM')[] = [];
    if (i >= BASELINE_CHECKS) {
      const age = i - BASELINE_CHECKS + 1;
      smooth = EWMA_WEIGHT * z + (1 - EWMA_WEIGHT) * smooth;
      cusumHigh[i] = Math.max(0, (i > BASELINE_CHECKS ? cusumHigh[i - 1] : 0) + z - CUSUM_ALLOWANCE);
      cusumLow[i] = Math.min(0, (i > BASELINE_CHECKS ? cusumLow[i - 1] : 0) + z + CUSUM_ALLOWANCE);
      const spread = ewmaSigma(age);
      ewmaLimit[i] = limits.ewma * spread * sigma;
      if (Math.abs(z) > limits.individual) own.push('individual');
      if (Math.abs(smooth) > limits.ewma * spread) own.push('EWMA');
      if (cusumHigh[i] > limits.cusum || cusumLow[i] < -limits.cusum) own.push('CUSUM');
    }
    ewma[i] = centre + smooth * sigma;
    over.push(own);
  }
  return {
    centre,
    sigma,
    individualLimit: limits.individual * sigma,
    ewma,
    ewmaLimit,
    cusumHigh,
    cusumLow,
    cusumLimit: limits.cusum,
    over,
  };
}

/** σ of an EWMA of independent values after so many, with the uncertainty of a centre from ten. */
function ewmaSigma(age: number): number {
  const w = EWMA_WEIGHT;
  const own = (w / (2 - w)) * (1 - (1 - w) ** (2 * age));
  const centre = (1 - (1 - w) ** age) ** 2 / BASELINE_CHECKS;
  return Math.sqrt(own + centre);
}
