import { percentile } from '../numerics/statistics.ts';

/** Variation of a run from its OK sheet, ΔE*ab of solids for 68 % of the sheets (ISO 12647-2, as commonly published). */
export const VARIATION_LIMITS: Readonly<Record<string, number>> = { C: 4, M: 4, Y: 5, K: 4 };
/** Of inks that the standard does not name; chosen here. */
export const OTHER_VARIATION = 4;

export const SHARE_68 = 0.68;
export const SHARE_95 = 0.95;

/** How the sheets of a run keep to the OK sheet in one solid. */
export interface Variation {
  readonly sheets: number;
  readonly limit: number;
  /** Share of sheets within the limit, 0..1; at least 68 % are asked for. */
  readonly within: number;
  /** Differences that 68 % and 95 % of the sheets keep to. */
  readonly at68: number;
  readonly at95: number;
  readonly kept: boolean;
  /** 95 % keep to twice the limit, as a normal spread about the OK sheet would; chosen here. */
  readonly kept95: boolean;
}

/** Judges the differences of a solid to its OK sheet, one for each sheet; none for no sheets. */
export function variation(differences: ArrayLike<number>, limit: number): Variation | undefined {
  const known = Array.from(differences).filter((value) => Number.isFinite(value));
  if (known.length === 0) return undefined;
  const share = (most: number): number => known.filter((value) => value <= most).length / known.length;
  return {
    sheets: known.length,
    limit,
    within: share(limit),
    at68: percentile(known, 100 * SHARE_68),
    at95: percentile(known, 100 * SHARE_95),
    kept: share(limit) >= SHARE_68,
    kept95: share(2 * limit) >= SHARE_95,
  };
}
