import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { WHITE_D50_MEASURED, WHITE_ICC } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { metric } from '../judgement/metric.ts';
import type { Metric } from '../judgement/metric.ts';
import { worstVerdict } from '../judgement/verdict.ts';
import type { Verdict } from '../judgement/verdict.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';

/** Limits of a house: mean and largest ΔE00. */
export interface ShortCheckLimits {
  readonly name: string;
  readonly mean: number;
  readonly largest: number;
}

/** House limits for photo prints; *tight* is a grade on top, not another verdict. */
export const HOUSE_PHOTO: ShortCheckLimits = { name: 'House: photo print', mean: 3, largest: 8 };
export const HOUSE_PHOTO_TIGHT: ShortCheckLimits = { name: 'tight', mean: 1.5, largest: 4 };

export interface ShortCheckPatch {
  readonly name: string;
  /** Colour asked for, media-relative Lab. */
  readonly asked: Lab;
  readonly device: readonly number[];
  /** Measured XYZ, Y = 100. */
  readonly xyz: Xyz;
  /** What the profile predicts for the device value, absolute Lab. */
  readonly predicted: Lab;
  readonly inGamut: boolean;
}

export interface JudgedPatch {
  readonly name: string;
  readonly asked: Lab;
  readonly device: readonly number[];
  /** Measured, relative to the sheet's own paper. */
  readonly measured: Lab;
  readonly measuredAbsolute: Lab;
  readonly inGamut: boolean;
  readonly reached: number;
  readonly repeats: number;
}

export interface ShortCheckResult {
  readonly limits: ShortCheckLimits;
  readonly verdict: Verdict;
  readonly tight: boolean;
  readonly metrics: readonly Metric[];
  /** Against the colours asked for, in gamut only; gives the verdict. */
  readonly reached: ErrorSummary;
  /** Against the profile's own prediction, all patches. */
  readonly repeats: ErrorSummary;
  readonly inGamutShare: number;
  readonly patches: readonly JudgedPatch[];
}

/** Colours judged on fewer than this share of the check say too little. */
const LEAST_SHARE = 0.5;

/**
 * Judges a short check. Aims are media-relative: measured colours are scaled by the paper of the same sheet.
 * @param paper measured XYZ of the sheet's paper, Y = 100.
 */
export function judgeShortCheck(
  patches: readonly ShortCheckPatch[],
  paper: Xyz,
  limits: ShortCheckLimits,
): ShortCheckResult {
  const judged = patches.map((patch): JudgedPatch => {
    const measuredAbsolute = xyzToLab(patch.xyz, WHITE_D50_MEASURED);
    const relative = patch.xyz.map((value, i) => (value / paper[i]) * WHITE_ICC[i]) as unknown as Xyz;
    const measured = xyzToLab(relative, WHITE_ICC);
    return {
      name: patch.name,
      asked: patch.asked,
      device: patch.device,
      measured,
      measuredAbsolute,
      inGamut: patch.inGamut,
      reached: deltaE2000(patch.asked, measured),
      repeats: deltaE2000(patch.predicted, measuredAbsolute),
    };
  });
  const inside = judged.filter(({ inGamut }) => inGamut);
  const reached = summariseErrors(inside.map((patch) => patch.reached));
  const repeats = summariseErrors(judged.map((patch) => patch.repeats));
  const share = inside.length / judged.length;
  const metrics = [
    metric('mean ΔE00 reached', reached.mean, limits.mean),
    metric('largest ΔE00 reached', reached.largest, limits.largest),
  ];
  return {
    limits,
    verdict: share >= LEAST_SHARE ? worstVerdict(metrics.map(({ verdict }) => verdict)) : 'not-judged',
    // A grade of the house limits; limits of one's own have none.
    tight:
      limits.name === HOUSE_PHOTO.name &&
      reached.mean <= HOUSE_PHOTO_TIGHT.mean &&
      reached.largest <= HOUSE_PHOTO_TIGHT.largest,
    metrics,
    reached,
    repeats,
    inGamutShare: share,
    patches: judged,
  };
}
