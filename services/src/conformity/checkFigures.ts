import type { AimCheckSummary } from './checks.ts';
import type { CheckSummary } from './shortChecks.ts';

/** The one figure that lists show of a check, its limit, and a limit for a picture of all its ΔE00. */
export function checkFigures(summary: string): {
  readonly value: number;
  readonly limit: number;
  readonly dots: number;
} {
  const parsed = JSON.parse(summary) as AimCheckSummary | CheckSummary;
  return 'kind' in parsed
    ? { value: parsed.value, limit: parsed.limit, dots: AIM_DOTS }
    : { value: parsed.mean, limit: parsed.meanLimit, dots: parsed.largestLimit };
}

/** 95 % of the patches of a proof lie under it. */
const AIM_DOTS = 5;
