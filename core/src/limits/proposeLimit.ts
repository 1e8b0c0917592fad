import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { evaluateCubicSpline } from '../numerics/smoothingSpline.ts';
import type { CubicSpline } from '../numerics/smoothingSpline.ts';
import { fitResponse } from '../tone/fitResponse.ts';
import type { InkRamp } from '../tone/inkRamps.ts';

/** Why a limit stands where it does. */
export type LimitReason = 'none' | 'little more chroma' | 'little darker' | 'hue turns';

export interface RampPoint {
  readonly tone: number;
  readonly chroma: number;
  readonly lightness: number;
  readonly hueDeg: number;
  readonly density: number;
}

export interface LimitProposal {
  readonly ink: string;
  /** Device value 0..1. */
  readonly limit: number;
  readonly reason: LimitReason;
  /** Density over paper at the limit and of the full tone. */
  readonly densityAtLimit: number;
  readonly dmax: number;
  /** The ramp as read, mean of its copies, and smoothed. */
  readonly read: readonly RampPoint[];
  readonly smooth: readonly RampPoint[];
}

/** Past the tone where the slope falls below this share of the ramp's mean slope, more ink gives nothing. */
const LEAST_SLOPE_SHARE = 0.15;
/** Largest turn of hue from the patch at 70 %, degrees. */
const MOST_HUE_TURN = 6;
const HUE_FROM = 0.7;
const STEPS = 100;

/**
 * Proposes the limit of one ink from its ramp, printed without curves: the first tone past which chroma (K: L*) hardly
 * moves on, or hue turns. It is a device value.
 */
export function proposeLimit(ramp: InkRamp, paper: ArrayLike<number>): LimitProposal {
  const lab = new Float64Array(ramp.xyz.length);
  xyzRowsToLab(ramp.xyz, WHITE_D50_MEASURED, lab);
  const paperLab = new Float64Array(3);
  xyzRowsToLab(paper, WHITE_D50_MEASURED, paperLab);
  const smooth = (value: (i: number) => number): CubicSpline =>
    fitResponse(
      { tone: ramp.tone, value: Float64Array.from(ramp.tone, (_, i) => value(i)) },
      { rising: false },
    ).spline;
  const l = smooth((i) => lab[3 * i]);
  const a = smooth((i) => lab[3 * i + 1]);
  const b = smooth((i) => lab[3 * i + 2]);
  const density = smooth((i) => ramp.density[i]);
  const at = (tone: number): RampPoint => {
    const [av, bv] = [evaluateCubicSpline(a, tone), evaluateCubicSpline(b, tone)];
    return {
      tone,
      lightness: evaluateCubicSpline(l, tone),
      chroma: Math.hypot(av - paperLab[1], bv - paperLab[2]),
      hueDeg: (Math.atan2(bv, av) * 180) / Math.PI,
      density: evaluateCubicSpline(density, tone),
    };
  };
  const points = Array.from({ length: STEPS + 1 }, (_, i) => at(i / STEPS));
  const quantity = (point: RampPoint): number => (ramp.ink === 'K' ? -point.lightness : point.chroma);
  const found = firstExcess(points, quantity, ramp.ink);
  const limit = found?.tone ?? 1;
  return {
    ink: ramp.ink,
    limit,
    reason: found?.reason ?? 'none',
    densityAtLimit: at(limit).density,
    dmax: at(1).density,
    read: readPoints(ramp, lab, paperLab),
    smooth: points,
  };
}

function firstExcess(
  points: readonly RampPoint[],
  quantity: (point: RampPoint) => number,
  ink: string,
): { tone: number; reason: LimitReason } | undefined {
  const most = Math.max(...points.map(quantity));
  const meanSlope = most - quantity(points[0]);
  const reference = points[Math.round(HUE_FROM * STEPS)].hueDeg;
  for (let i = Math.round(HUE_FROM * STEPS); i < STEPS; i++) {
    const slope = (quantity(points[i + 1]) - quantity(points[i - 1])) * (STEPS / 2);
    // A flat place alone is a bump of the press: what is left to the end must be as little.
    const rest = (quantity(points[STEPS]) - quantity(points[i])) * (STEPS / (STEPS - i));
    if (Math.max(slope, rest) < LEAST_SLOPE_SHARE * meanSlope)
      return { tone: i / STEPS, reason: ink === 'K' ? 'little darker' : 'little more chroma' };
    const turn = Math.abs(((points[i].hueDeg - reference + 540) % 360) - 180);
    if (ink !== 'K' && turn > MOST_HUE_TURN) return { tone: i / STEPS, reason: 'hue turns' };
  }
  return undefined;
}

function readPoints(ramp: InkRamp, lab: Float64Array, paperLab: Float64Array): RampPoint[] {
  const byTone = new Map<number, number[]>();
  ramp.tone.forEach((tone, i) => byTone.set(tone, [...(byTone.get(tone) ?? []), i]));
  return [...byTone]
    .sort(([x], [y]) => x - y)
    .map(([tone, rows]) => {
      const middle = (axis: number): number =>
        rows.reduce((sum, i) => sum + lab[3 * i + axis], 0) / rows.length;
      const [l, a, b] = [middle(0), middle(1), middle(2)];
      return {
        tone,
        lightness: l,
        chroma: Math.hypot(a - paperLab[1], b - paperLab[2]),
        hueDeg: (Math.atan2(b, a) * 180) / Math.PI,
        density: rows.reduce((sum, i) => sum + ramp.density[i], 0) / rows.length,
      };
    });
}
