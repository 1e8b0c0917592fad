import type { ControlLimits } from '../../series/controlChart.ts';

/**
 * Limits in σ by simulation of 4,000 steady watches of 22 series and 50 checks after a baseline of ten (`simulateLimits`,
 * share 0.12 of watches a kind, seed 5): centre and σ are estimated from the baseline, a quarter of the variance is slow.
 */
export const WATCH_LIMITS: ControlLimits = { individual: 6.23, ewma: 6.45, cusum: 18.3 };
