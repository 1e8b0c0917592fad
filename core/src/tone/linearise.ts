import { evaluateCubicSpline } from '../numerics/smoothingSpline.ts';
import { fitResponse } from './fitResponse.ts';
import { patchOf } from './inkRamps.ts';
import type { InkRamp } from './inkRamps.ts';
import { smoothToneCurve } from './smoothToneCurve.ts';
import type { TviAim } from './tviAim.ts';
import { chainToneCurves, evaluateToneCurve, invertToneCurve, sampleToneCurve } from './toneCurve.ts';
import type { ToneCurve } from './toneCurve.ts';
import { toneQuantity } from './toneMeasure.ts';
import type { ToneMeasure } from './toneMeasure.ts';

export interface LinearisationInput {
  readonly ramps: readonly InkRamp[];
  /** XYZ of the bare paper. */
  readonly paper: ArrayLike<number>;
  /** The curves the ramps were printed through, by channel. */
  readonly present: readonly ToneCurve[];
  /** Ink limits at the device, 0..1, by channel. */
  readonly limits: readonly number[];
  readonly measure: ToneMeasure;
  /** Aims by channel, for the measure `tvi`. */
  readonly tviAims?: readonly TviAim[];
}

/** One printed step of a ramp beside its aim; tone values 0..1. */
export interface ToneStep {
  readonly nominal: number;
  readonly measured: number;
  readonly aim: number;
  /** Value to send to the present curve so that the aim comes out. */
  readonly correction: number;
  /** Tone value that the new curve should give. */
  readonly predicted: number;
  /** Copies that went into it. */
  readonly copies: number;
}

export interface WrongPatch {
  /** Row of the patch in the reading. */
  readonly row: number;
  readonly ink: string;
  readonly tone: number;
  /** Departure from what its neighbours and copies say, as a tone value. */
  readonly off: number;
}

export interface InkLinearisation {
  readonly ink: string;
  readonly steps: readonly ToneStep[];
  readonly wrong: readonly WrongPatch[];
  /** Spread of a single reading, as a tone value. */
  readonly noise: number;
  /** Curve from document tone to device, for the next round. */
  readonly next: ToneCurve;
  /** Largest and mean departure of the printed steps from the aim, as tone values. */
  readonly largest: number;
  readonly mean: number;
}

/**
 * Curves that bring single-ink ramps to an even scale (or a TVI aim): measured response → smooth rising curve →
 * inverse to the aim, chained before the curves the sheet was printed through. Both ends stay: no ink, and the limit.
 */
export function linearise(input: LinearisationInput): InkLinearisation[] {
  return input.ramps.map((ramp) => lineariseInk(ramp, input));
}

function lineariseInk(ramp: InkRamp, input: LinearisationInput): InkLinearisation {
  const { measure, paper } = input;
  const { channel } = ramp;
  const present = input.present[channel];
  const limit = input.limits[channel];
  const quantity = Float64Array.from(ramp.tone, (_, i) =>
    toneQuantity(measure, ramp.ink, patchOf(ramp, i), paper),
  );
  const fit = fitResponse({ tone: ramp.tone, value: quantity });
  const set = new Set(fit.wrong.map(({ index }) => index));
  // The tone, as sent, at which the present curve gives the limit: the new curve ends there.
  const end = limit < present[present.length - 1] ? invertToneCurve(present, limit) : 1;
  const full = evaluateCubicSpline(fit.spline, end);
  const zero = evaluateCubicSpline(fit.spline, 0);
  const response = (t: number): number => (evaluateCubicSpline(fit.spline, t) - zero) / (full - zero);
  const aim = aimOf(measure, channel, input.tviAims);
  const responseCurve = sampleToneCurve((t) => Math.max(0, response(t * end)));
  for (let i = 1; i < responseCurve.length; i++)
    responseCurve[i] = Math.max(responseCurve[i], responseCurve[i - 1]);
  const correct = (t: number): number => end * invertToneCurve(responseCurve, Math.min(1, aim(t)));
  const correction = sampleToneCurve((t) => (t === 0 ? 0 : t === 1 ? end : correct(t)));
  const next = smoothToneCurve(chainToneCurves(correction, present));
  const steps = stepsOf(ramp, quantity, set, full, end, { aim, response, correct, next, present });
  const errors = steps.map(({ measured, aim: wanted }) => Math.abs(measured - wanted));
  return {
    ink: ramp.ink,
    steps,
    wrong: fit.wrong.map(({ index, off }) => ({
      row: ramp.rows[index],
      ink: ramp.ink,
      tone: ramp.tone[index],
      off,
    })),
    noise: fit.noise,
    next,
    largest: Math.max(0, ...errors),
    mean: errors.reduce((a, b) => a + b, 0) / Math.max(1, errors.length),
  };
}

function aimOf(
  measure: ToneMeasure,
  channel: number,
  aims: readonly TviAim[] | undefined,
): (tone: number) => number {
  if (measure !== 'tvi') return (t) => t;
  if (aims === undefined) throw new RangeError('the measure tvi needs an aim for each ink');
  return (t) => t + aims[channel].increase(t);
}

function stepsOf(
  ramp: InkRamp,
  quantity: Float64Array,
  wrong: ReadonlySet<number>,
  full: number,
  end: number,
  curves: {
    readonly aim: (t: number) => number;
    readonly response: (t: number) => number;
    readonly correct: (t: number) => number;
    readonly next: ToneCurve;
    readonly present: ToneCurve;
  },
): ToneStep[] {
  const byTone = new Map<number, number[]>();
  ramp.tone.forEach((tone, i) => {
    if (wrong.has(i)) return;
    const rows = byTone.get(tone);
    if (rows === undefined) byTone.set(tone, [i]);
    else rows.push(i);
  });
  return [...byTone]
    .filter(([tone]) => tone > 0 && tone <= end + 1e-9)
    .sort(([a], [b]) => a - b)
    .map(([tone, rows]) => {
      // Judged along the scale that ends at the limit.
      const nominal = tone / end;
      const measured = rows.reduce((sum, i) => sum + quantity[i], 0) / rows.length / full;
      const sent = invertToneCurve(curves.present, evaluateToneCurve(curves.next, nominal));
      return {
        nominal,
        measured,
        aim: curves.aim(nominal),
        correction: curves.correct(nominal),
        predicted: curves.response(sent),
        copies: rows.length,
      };
    });
}
