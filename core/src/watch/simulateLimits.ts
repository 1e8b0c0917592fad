import { createRandom } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { percentile } from '../numerics/statistics.ts';
import { BASELINE_CHECKS, controlChart } from '../series/controlChart.ts';
import type { ControlLimits } from '../series/controlChart.ts';

/** How the steady series are made that limits are widened on. */
export interface SteadyModel {
  /** Series of a watch, and checks after the baseline. */
  readonly series: number;
  readonly checks: number;
  /** Share of the variance that comes slowly, as devices drift to and fro, and its correlation from check to check. */
  readonly slowShare: number;
  readonly slowCorrelation: number;
  /** σ that the instrument alone would give, relative to σ. */
  readonly leastSigma: number;
}

export const STEADY: SteadyModel = {
  series: 22,
  checks: 50,
  slowShare: 0.25,
  slowCorrelation: 0.6,
  leastSigma: 0.6,
};

const FREE: ControlLimits = { individual: Infinity, ewma: Infinity, cusum: Infinity };

/**
 * Limits by simulation of steady watches, centre and σ estimated from the first ten checks: so wide that one watch in
 * `1/share` has an alarm of a kind within `checks` checks over all its series.
 */
export function simulateLimits(share: number, watches: number, seed: number, model = STEADY): ControlLimits {
  const random = createRandom(seed);
  const most = { individual: [] as number[], ewma: [] as number[], cusum: [] as number[] };
  for (let watch = 0; watch < watches; watch++) {
    const own = { individual: 0, ewma: 0, cusum: 0 };
    for (let series = 0; series < model.series; series++) {
      const values = steadySeries(random, model);
      const chart = controlChart(values, model.leastSigma, FREE);
      // Unit limits give the spread of the EWMA at each age.
      const unit = controlChart(values, model.leastSigma, { individual: 1, ewma: 1, cusum: 1 });
      if (chart === undefined || unit === undefined) continue;
      for (let i = BASELINE_CHECKS; i < values.length; i++) {
        own.individual = Math.max(own.individual, Math.abs(values[i] - chart.centre) / chart.sigma);
        own.ewma = Math.max(own.ewma, Math.abs(chart.ewma[i] - chart.centre) / unit.ewmaLimit[i]);
        own.cusum = Math.max(own.cusum, chart.cusumHigh[i], -chart.cusumLow[i]);
      }
    }
    for (const kind of ['individual', 'ewma', 'cusum'] as const) most[kind].push(own[kind]);
  }
  const at = 100 * (1 - share);
  return {
    individual: percentile(most.individual, at),
    ewma: percentile(most.ewma, at),
    cusum: percentile(most.cusum, at),
  };
}

/** A steady series: independent scatter and a slow part, unit variance. */
export function steadySeries(random: Random, model: SteadyModel): Float64Array {
  const { slowShare, slowCorrelation: rho } = model;
  let slow = random.normal();
  return Float64Array.from({ length: BASELINE_CHECKS + model.checks }, () => {
    slow = rho * slow + Math.sqrt(1 - rho * rho) * random.normal();
    return Math.sqrt(1 - slowShare) * random.normal() + Math.sqrt(slowShare) * slow;
  });
}
