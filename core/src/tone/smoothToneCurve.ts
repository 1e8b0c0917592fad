import { evaluateCubicSpline, fitSmoothingSpline } from '../numerics/smoothingSpline.ts';
import { evaluateToneCurve, largestBend, sampleToneCurve } from './toneCurve.ts';
import type { ToneCurve } from './toneCurve.ts';

/** Second differences (per interval²) that a press's own response asks for at most; more is a kink. */
export const MOST_CURVE_BEND = 40;
const KNOTS = 65;

/** The curve itself where it bends no more than `most`; else the least smoothed one that does, both ends kept. */
export function smoothToneCurve(curve: ToneCurve, most = MOST_CURVE_BEND): ToneCurve {
  if (largestBend(curve) <= most) return curve;
  const x = Array.from({ length: KNOTS }, (_, i) => i / (KNOTS - 1));
  const end = curve[curve.length - 1];
  const y = x.map((t) => evaluateToneCurve(curve, t) - t * end);
  const weights = x.map((_, i) => (i === 0 || i === KNOTS - 1 ? 1e4 : 1));
  let smooth = curve;
  for (let least = 1e-8; least < 10; least *= 4) {
    const { spline } = fitSmoothingSpline(x, y, weights, least);
    const [first, last] = [evaluateCubicSpline(spline, 0), evaluateCubicSpline(spline, 1)];
    smooth = sampleToneCurve((t) => t * end + evaluateCubicSpline(spline, t) - first * (1 - t) - last * t);
    rise(smooth, end);
    if (largestBend(smooth) <= most) return smooth;
  }
  return smooth;
}

/** Guards against rounding: from 0 to `end`, never falling. */
function rise(curve: ToneCurve, end: number): void {
  curve[0] = 0;
  for (let i = 1; i < curve.length; i++) curve[i] = Math.min(end, Math.max(curve[i - 1], curve[i]));
  curve[curve.length - 1] = end;
}
