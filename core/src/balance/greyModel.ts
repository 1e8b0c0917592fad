import { solvePositiveDefinite } from '../numerics/cholesky.ts';
import { evaluateCubicSpline, fitSmoothingSpline } from '../numerics/smoothingSpline.ts';
import type { CubicSpline } from '../numerics/smoothingSpline.ts';
import { solve3 } from '../numerics/solve3.ts';
import { greyCyan, greyMagentaYellow } from './greyTriplet.ts';
import type { NeutralReading } from './neutralScales.ts';

/** Lab of inks near the grey scale, and its inverse. Inks are values as sent to the front end, 0..1. */
export interface GreyModel {
  /** Lab of C, M, Y. */
  lab(cmy: readonly [number, number, number]): [number, number, number];
  /** Inks that give a Lab, sought from the scale's step at `start`; within 0..1. */
  inks(lab: readonly [number, number, number], start: number): [number, number, number];
  /** rms of what the model leaves of the variations, Lab units. */
  readonly residual: number;
}

/** Change of L*, a*, b* with magenta and with yellow: a quadratic in the cyan value of the scale, each. */
const TERMS = 3;

/**
 * Local models of L*, a*, b* along the grey scale: the scale itself as smoothing splines, the effect of magenta and
 * yellow from the greys with small changes; the effect of cyan is what the scale's own slope leaves.
 */
export function fitGreyModel(reading: NeutralReading): GreyModel {
  const tones = reading.cmy.map(({ tone }) => tone);
  const weights = reading.cmy.map(({ tone, rows }) => (tone === 0 ? 50 : rows.length));
  const scale = [0, 1, 2].map(
    (axis) =>
      fitSmoothingSpline(
        tones,
        reading.cmy.map(({ lab }) => lab[axis]),
        weights,
      ).spline,
  );
  const effects = fitEffects(reading, scale);
  const model = createModel(scale, effects);
  let sum = 0;
  for (const { cmy, lab } of reading.variations) {
    const own = model.lab(cmy);
    for (let axis = 0; axis < 3; axis++) sum += (own[axis] - lab[axis]) ** 2;
  }
  return { ...model, residual: Math.sqrt(sum / Math.max(1, reading.variations.length)) };
}

/** [axis][ink M or Y][term]. */
type Effects = readonly (readonly Float64Array[])[];

/** Middle of the scale that inks belong to: the mean of the cyan values each of them would have in a grey. */
function placeOf(cmy: readonly [number, number, number]): number {
  return (cmy[0] + greyCyan(cmy[1]) + greyCyan(cmy[2])) / 3;
}

function fitEffects(reading: NeutralReading, scale: readonly CubicSpline[]): Effects {
  if (reading.variations.length < 2 * TERMS)
    throw new RangeError(
      `${reading.variations.length} greys with small changes, expected at least ${2 * TERMS}`,
    );
  return scale.map((spline) => {
    // Unknowns: three terms for magenta, three for yellow; the grey they belong to has the same cyan.
    const size = 2 * TERMS;
    const normal = new Float64Array(size * size);
    const right = new Float64Array(size);
    const axis = scale.indexOf(spline);
    for (const { cmy, lab } of reading.variations) {
      const grey = greyMagentaYellow(cmy[0]);
      const [dm, dy] = [cmy[1] - grey, cmy[2] - grey];
      const terms = termsOf(cmy[0]);
      const row = [...terms.map((term) => term * dm), ...terms.map((term) => term * dy)];
      const rest = lab[axis] - evaluateCubicSpline(spline, cmy[0]);
      for (let p = 0; p < size; p++) {
        right[p] += row[p] * rest;
        for (let q = 0; q < size; q++) normal[p * size + q] += row[p] * row[q];
      }
    }
    for (let p = 0; p < size; p++) normal[p * size + p] += 1e-7;
    const solved = solvePositiveDefinite(normal, size, right);
    return [solved.slice(0, TERMS), solved.slice(TERMS)];
  });
}

function termsOf(tone: number): number[] {
  return [1, tone, tone * tone];
}

function createModel(scale: readonly CubicSpline[], effects: Effects): Omit<GreyModel, 'residual'> {
  const effect = (axis: number, ink: number, tone: number): number => {
    const terms = termsOf(tone);
    return effects[axis][ink].reduce((sum, value, i) => sum + value * terms[i], 0);
  };
  const lab = (cmy: readonly [number, number, number]): [number, number, number] => {
    const at = placeOf(cmy);
    const grey = greyMagentaYellow(at);
    const h = 0.01;
    const slopeMy =
      (greyMagentaYellow(Math.min(1, at + h)) - greyMagentaYellow(Math.max(0, at - h))) /
      (Math.min(1, at + h) - Math.max(0, at - h));
    const out: [number, number, number] = [0, 0, 0];
    for (let axis = 0; axis < 3; axis++) {
      const [m, y] = [effect(axis, 0, at), effect(axis, 1, at)];
      const slope =
        (evaluateCubicSpline(scale[axis], at + h) - evaluateCubicSpline(scale[axis], at - h)) / (2 * h);
      const c = slope - slopeMy * (m + y);
      out[axis] =
        evaluateCubicSpline(scale[axis], at) + c * (cmy[0] - at) + m * (cmy[1] - grey) + y * (cmy[2] - grey);
    }
    return out;
  };
  return {
    lab,
    inks(wanted, start) {
      const inks: [number, number, number] = [start, greyMagentaYellow(start), greyMagentaYellow(start)];
      const jacobian = new Float64Array(9);
      const step = new Float64Array(3);
      for (let iteration = 0; iteration < 30; iteration++) {
        const now = lab(inks);
        const rest = Float64Array.from(wanted, (value, axis) => value - now[axis]);
        if (Math.hypot(rest[0], rest[1], rest[2]) < 1e-4) break;
        for (let ink = 0; ink < 3; ink++) {
          const moved: [number, number, number] = [...inks];
          moved[ink] += 0.005;
          const there = lab(moved);
          for (let axis = 0; axis < 3; axis++) jacobian[3 * axis + ink] = (there[axis] - now[axis]) / 0.005;
        }
        if (!solve3(jacobian, rest, step)) break;
        // Steps stay short: the model is local.
        const longest = Math.max(Math.abs(step[0]), Math.abs(step[1]), Math.abs(step[2]));
        const factor = longest > 0.08 ? 0.08 / longest : 1;
        for (let ink = 0; ink < 3; ink++)
          inks[ink] = Math.min(1, Math.max(0, inks[ink] + factor * step[ink]));
      }
      return inks;
    },
  };
}
