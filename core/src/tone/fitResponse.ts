import { evaluateCubicSpline, fitSmoothingSpline } from '../numerics/smoothingSpline.ts';
import type { CubicSpline, SmoothingFit } from '../numerics/smoothingSpline.ts';
import { median, percentile } from '../numerics/statistics.ts';

/** A measured quantity along a ramp: it starts at zero on paper and grows with the tone value. */
export interface RampPoints {
  /** Tone values 0..1; repeats allowed. */
  readonly tone: ArrayLike<number>;
  readonly value: ArrayLike<number>;
}

/** A point that does not fit the ramp. */
export interface WrongPoint {
  /** Its place in the list of points. */
  readonly index: number;
  /** How far it lies from what the others predict, as a share of the ramp's range. */
  readonly off: number;
}

export interface FittedResponse {
  readonly spline: CubicSpline;
  /** Spread of a single reading about the curve, as a share of the ramp's range. */
  readonly noise: number;
  readonly wrong: readonly WrongPoint[];
}

/** A point is wrong beyond this many robust deviations, and at least this share of the range. */
const WRONG_DEVIATIONS = 7;
const WRONG_LEAST = 0.04;
/** … and beyond this many times the departure that nine of ten points keep within. */
const WRONG_TAIL = 2.5;
/** No more than this share of the points is set aside. */
const WRONG_SHARE = 0.1;
/** Least slope of the response, as a share of its mean slope. */
const LEAST_SLOPE = 0.03;
const CHECKED = 200;
/** Largest second derivative of a response whose range is 1: a press has no kinks, a wrong reading makes them. */
const MOST_BEND = 30;

export interface ResponseChoices {
  /** The response must rise everywhere: more smoothing is taken until it does. */
  readonly rising: boolean;
  /** Least departure, in the unit of the values, at which a point may be called wrong; a share of the range otherwise. */
  readonly leastOff?: number;
}

/**
 * Fits a smooth response to a noisy ramp. The smoothing follows the noise (leave-one-out); points that the rest
 * contradicts are set aside and named, the two ends only where their copies contradict each other.
 */
export function fitResponse(
  points: RampPoints,
  { rising, leastOff }: ResponseChoices = { rising: true },
): FittedResponse {
  const n = points.tone.length;
  if (points.value.length !== n) throw new RangeError(`${n} tones with ${points.value.length} values`);
  const active = new Set(Array.from({ length: n }, (_, i) => i));
  const wrong: WrongPoint[] = [];
  const range = rangeOf(points);
  for (;;) {
    const groups = groupByTone(points, active);
    const fit = fitGroups(groups);
    const deviations: number[] = [];
    let worst: WrongPoint | undefined;
    groups.forEach((group, g) => {
      const end = g === 0 || g === groups.length - 1;
      const middle = median(group.rows.map((i) => points.value[i]));
      for (const i of group.rows) {
        // At the ends only the copies can contradict each other.
        const off = end ? points.value[i] - middle : points.value[i] - (group.mean - fit.leftOut[g]);
        deviations.push(Math.abs(off) / range);
        const canGo = end ? group.rows.length > 2 : true;
        if (canGo && Math.abs(off) / range > Math.abs(worst?.off ?? 0))
          worst = { index: i, off: off / range };
      }
    });
    const noise = 1.4826 * median(deviations);
    const limit = Math.max(
      leastOff === undefined ? WRONG_LEAST : leastOff / range,
      WRONG_DEVIATIONS * noise,
      WRONG_TAIL * percentile(deviations, 90),
    );
    if (worst === undefined || Math.abs(worst.off) <= limit || wrong.length >= Math.max(1, WRONG_SHARE * n))
      return { spline: rising ? risingSpline(groups, fit.smoothing) : fit.spline, noise, wrong };
    wrong.push(worst);
    active.delete(worst.index);
  }
}

interface Group {
  readonly tone: number;
  readonly mean: number;
  readonly rows: readonly number[];
}

function groupByTone(points: RampPoints, active: ReadonlySet<number>): Group[] {
  const byTone = new Map<number, number[]>();
  for (const i of active) {
    const key = Math.round(points.tone[i] * 1e6) / 1e6;
    const rows = byTone.get(key);
    if (rows === undefined) byTone.set(key, [i]);
    else rows.push(i);
  }
  return [...byTone]
    .map(([tone, rows]) => ({
      tone,
      rows,
      mean: rows.reduce((s, i) => s + points.value[i], 0) / rows.length,
    }))
    .sort((a, b) => a.tone - b.tone);
}

/** The mean counts for its copies; the paper (tone 0) is held, it is the zero of the quantity. */
function weightsOf(groups: readonly Group[]): number[] {
  return groups.map(({ tone, rows }) => (tone === 0 ? 1000 : rows.length));
}

function fitGroups(groups: readonly Group[]): SmoothingFit {
  return fitSmoothingSpline(
    groups.map(({ tone }) => tone),
    groups.map(({ mean }) => mean),
    weightsOf(groups),
  );
}

function risingSpline(groups: readonly Group[], chosen: number): CubicSpline {
  const x = groups.map(({ tone }) => tone);
  const y = groups.map(({ mean }) => mean);
  const weights = weightsOf(groups);
  const end = x[x.length - 1];
  let smoothing = chosen;
  for (let attempt = 0; ; attempt++) {
    const { spline } = fitSmoothingSpline(x, y, weights, smoothing);
    const least = (LEAST_SLOPE * (y[y.length - 1] - y[0])) / CHECKED;
    const range = Math.abs(y[y.length - 1] - y[0]);
    let rises = Math.max(...spline.bend.map(Math.abs)) <= MOST_BEND * range;
    for (let i = 0; i < CHECKED; i++)
      if (
        evaluateCubicSpline(spline, ((i + 1) * end) / CHECKED) -
          evaluateCubicSpline(spline, (i * end) / CHECKED) <
        least
      )
        rises = false;
    if (rises || attempt > 20) return spline;
    smoothing *= 2.5;
  }
}

function rangeOf({ value }: RampPoints): number {
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < value.length; i++) {
    least = Math.min(least, value[i]);
    most = Math.max(most, value[i]);
  }
  return Math.max(1e-9, most - least);
}
