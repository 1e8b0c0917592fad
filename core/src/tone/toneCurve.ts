/** Intervals of a tone curve: fine enough that the line between two points is the curve. */
const INTERVALS = 256;
export const CURVE_POINTS = INTERVALS + 1;

/** Output tone values at the inputs i/256, 0..1, linear between; it never falls. */
export type ToneCurve = Float64Array;

/** One curve a channel, in the order of the channels. */
export type ToneCurves = readonly ToneCurve[];

/** Samples a function of 0..1 as a curve. */
export function sampleToneCurve(output: (input: number) => number): ToneCurve {
  return Float64Array.from({ length: CURVE_POINTS }, (_, i) => output(i / INTERVALS));
}

/** The straight line from 0 to `limit`. */
export function straightCurve(limit = 1): ToneCurve {
  return sampleToneCurve((t) => t * limit);
}

/** Output of a curve; inputs beyond 0..1 give its ends. */
export function evaluateToneCurve(curve: ToneCurve, input: number): number {
  const at = Math.min(1, Math.max(0, input)) * INTERVALS;
  const i = Math.min(INTERVALS - 1, Math.floor(at));
  return curve[i] + (at - i) * (curve[i + 1] - curve[i]);
}

/** Least input whose output reaches `output`; 1 where the curve never does. */
export function invertToneCurve(curve: ToneCurve, output: number): number {
  if (output <= curve[0]) return 0;
  let low = 0;
  let high = INTERVALS;
  if (curve[high] < output) return 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (curve[middle] < output) low = middle;
    else high = middle;
  }
  const step = curve[high] - curve[low];
  return (low + (step > 0 ? (output - curve[low]) / step : 1)) / INTERVALS;
}

/** The curve that applies `first`, then `second`: a later round that is corrected by an earlier curve's input. */
export function chainToneCurves(first: ToneCurve, second: ToneCurve): ToneCurve {
  return Float64Array.from(first, (value) => evaluateToneCurve(second, value));
}

/** Device rows through curves; row-major × channels, a new array. */
export function applyToneCurves(curves: ToneCurves, device: ArrayLike<number>): Float64Array {
  const n = curves.length;
  return Float64Array.from(device, (value, i) => evaluateToneCurve(curves[i % n], value));
}

/** Largest second difference between neighbouring points, per interval²: 0 for a line, large at a kink. */
export function largestBend(curve: ToneCurve): number {
  let most = 0;
  for (let i = 1; i < INTERVALS; i++)
    most = Math.max(most, Math.abs(curve[i - 1] - 2 * curve[i] + curve[i + 1]));
  return most * INTERVALS * INTERVALS;
}

/** Whether no point lies below the one before it and all lie within 0..1. */
export function isToneCurve(values: ArrayLike<number>): boolean {
  if (values.length !== CURVE_POINTS) return false;
  for (let i = 0; i < values.length; i++)
    if (!(values[i] >= 0 && values[i] <= 1) || (i > 0 && values[i] < values[i - 1])) return false;
  return true;
}
