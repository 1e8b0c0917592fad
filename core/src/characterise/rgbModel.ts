import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';
import { fitSpaceToLab, fitSpaceToXyz, xyzToFitSpace } from './fitSpace.ts';
import { mergeRepeats } from './mergeRepeats.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import { chooseSmoothing, takeRows } from './chooseSmoothing.ts';
import { committeePart } from './committeePart.ts';
import { fitInParts } from './fitLargeSpline.ts';
import type { SplineData } from './projectedKernel.ts';
import { evaluateSpline } from './radialSpline.ts';
import type { RadialSpline } from './radialSpline.ts';

/** A model of a device with an RGB driver, fitted to a reading. */
export interface RgbModel {
  readonly spline: RadialSpline;
  readonly patches: MergedPatches;
  /** Smoothing factor in the units of the kernel. */
  readonly smoothing: number;
  readonly crossValidation: CrossValidation;
  /** Other splines of the same patches: those of the cross-validation, each fitted without its fold, and a smoother one. */
  readonly committee: readonly RadialSpline[];
}

/** How well patches are predicted by a model made without them; reading noise is included. */
export interface CrossValidation {
  readonly folds: number;
  readonly summary: ErrorSummary;
  /** ΔE00 per merged patch. */
  readonly errors: Float64Array;
  /** Predicted Lab per merged patch, row-major × 3. */
  readonly predicted: Float64Array;
  /** Measured Lab per merged patch (mean of its readings), row-major × 3. */
  readonly measured: Float64Array;
}

const FOLDS = 5;
/** Smoothing of the smoother spline of the committee, in multiples of the best one. */
const SMOOTHER = 10;
/**
 * More rows than this are taken in parts: their mean is as near to the device as one spline over all, in a fraction of
 * the time (docs/decisions/0002).
 */
const MOST_WHOLE = 2700;
const PART_ROWS = 1600;

/**
 * Fits the model: a smoothing spline over raw device values, its factor from leave-one-out over half decades, the
 * paper and repeats weighed as the number of their readings.
 * @param device row-major patch × 3, 0..1.
 * @param xyz row-major patch × 3, Y = 100 for a perfect reflector.
 * @param seed of the folds of the cross-validation.
 */
export function fitRgbModel(device: Float64Array, xyz: Float64Array, seed = 1): RgbModel {
  const fitted = fitRgb(device, xyz, seed);
  const { patches, smoothing } = fitted;
  const parts = rgbModelParts(patches.counts.length);
  const data = rgbModelData(patches);
  const validated = crossValidate(data, smoothing, seed, parts);
  const smoother = fitInParts(committeePart(data, seed), SMOOTHER * smoothing, 1);
  return { ...fitted, ...validated, committee: [...validated.committee, smoother] };
}

/** The same without the cross-validation, for previews. */
export function fitRgb(
  device: Float64Array,
  xyz: Float64Array,
  seed = 1,
): Omit<RgbModel, 'crossValidation' | 'committee'> {
  const patches = mergeRepeats(device, 3, xyz);
  const data = rgbModelData(patches);
  const smoothing = chooseSmoothing(data, seed);
  return { spline: fitInParts(data, smoothing, rgbModelParts(patches.counts.length)), patches, smoothing };
}

/** Parts that a model of so many distinct patches is fitted in. */
export function rgbModelParts(rows: number): number {
  return rows <= MOST_WHOLE ? 1 : Math.ceil(rows / PART_ROWS);
}

/** What the spline is fitted to. */
export function rgbModelData(patches: MergedPatches): SplineData {
  const targets = new Float64Array(patches.xyz.length);
  xyzToFitSpace(patches.xyz, targets);
  return { inputs: 3, outputs: 3, centres: patches.device, targets, counts: patches.counts };
}

/** XYZ (Y = 100) of device rows. */
export function rgbModelXyz(model: RgbModel, device: ArrayLike<number>, out: Float64Array): void {
  evaluateSpline(model.spline, device, out);
  fitSpaceToXyz(out, out);
}

/** Lab (D50/2°, measured white) of device rows. */
export function rgbModelLab(
  model: Pick<RgbModel, 'spline'>,
  device: ArrayLike<number>,
  out: Float64Array,
): void {
  evaluateSpline(model.spline, device, out);
  fitSpaceToLab(out, out);
}

function crossValidate(
  data: SplineData,
  smoothing: number,
  seed: number,
  parts: number,
): Pick<RgbModel, 'crossValidation' | 'committee'> {
  const count = data.counts.length;
  const order = shuffle(
    Array.from({ length: count }, (_, i) => i),
    createRandom(seed),
  );
  const predicted = new Float64Array(count * 3);
  const committee: RadialSpline[] = [];
  for (let fold = 0; fold < FOLDS; fold++) {
    const left = order.filter((_, i) => i % FOLDS === fold);
    const spline = fitInParts(
      takeRows(
        data,
        order.filter((_, i) => i % FOLDS !== fold),
      ),
      smoothing,
      parts,
    );
    committee.push(spline);
    const out = new Float64Array(left.length * 3);
    evaluateSpline(spline, takeRows(data, left).centres, out);
    left.forEach((row, i) => predicted.set(out.subarray(3 * i, 3 * i + 3), 3 * row));
  }
  fitSpaceToLab(predicted, predicted);
  const measured = new Float64Array(count * 3);
  fitSpaceToLab(data.targets, measured);
  const errors = deltaE2000Rows(measured, predicted);
  return {
    crossValidation: { folds: FOLDS, summary: summariseErrors(errors), errors, predicted, measured },
    committee,
  };
}
