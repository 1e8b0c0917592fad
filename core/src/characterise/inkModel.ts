import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { chooseSmoothing, takeRows } from './chooseSmoothing.ts';
import { fitSpaceToLab, fitSpaceToXyz, xyzToFitSpace } from './fitSpace.ts';
import { fitLargeSpline } from './fitLargeSpline.ts';
import { fitInkPhysics, inkPhysicsFit } from './inkPhysics.ts';
import type { InkPhysics } from './inkPhysics.ts';
import { mergeRepeats } from './mergeRepeats.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import type { SplineData } from './projectedKernel.ts';
import { evaluateSpline } from './radialSpline.ts';
import type { RadialSpline } from './radialSpline.ts';
import type { CrossValidation } from './rgbModel.ts';

/** A model of an ink device: mixing physics, and a spline for what it leaves. */
export interface FittedInks {
  readonly inks: number;
  readonly physics: InkPhysics;
  readonly residual: RadialSpline;
  readonly patches: MergedPatches;
  readonly smoothing: number;
}

/** The model with how well it predicts. */
export interface InkModel extends FittedInks {
  readonly crossValidation: CrossValidation;
}

/** Paper is held: it weighs as its readings, and as twelve at least. */
const PAPER_COUNT = 12;
const FOLDS = 5;
/** Half decades of the residual's smoothing, relative to the size of the kernel. */
const RESIDUAL_FACTORS = Array.from({ length: 17 }, (_, i) => 10 ** (-7 + i / 2));

/**
 * Fits the model to a reading.
 * @param device row-major × inks, 0..1.
 * @param xyz Y = 100.
 * @param seed of the choice of rows and of the folds.
 */
export function fitInkModel(
  device: Float64Array,
  inks: number,
  xyz: Float64Array,
  seed = 1,
  onProgress: (fraction: number) => void = () => {},
): InkModel {
  const fitted = fitInks(device, inks, xyz, seed, (fraction) => onProgress(0.55 * fraction));
  return {
    ...fitted,
    crossValidation: crossValidate(fitted, seed, (fraction) => onProgress(0.55 + 0.45 * fraction)),
  };
}

/** The same without the cross-validation, for previews. */
export function fitInks(
  device: Float64Array,
  inks: number,
  xyz: Float64Array,
  seed = 1,
  onProgress: (fraction: number) => void = () => {},
): FittedInks {
  const patches = mergeRepeats(device, inks, xyz);
  const { counts, targets } = weighedTargets(patches);
  const physics = fitInkPhysics(patches.device, inks, patches.xyz, counts);
  onProgress(0.55);
  const data = residualData(physics, patches.device, targets, counts);
  const smoothing = chooseSmoothing(data, seed, RESIDUAL_FACTORS);
  const residual = fitLargeSpline(data, smoothing);
  onProgress(1);
  return { inks, physics, residual, patches, smoothing };
}

/** Readings behind each patch, with the paper held, and the colours in fit space. */
function weighedTargets({ device, channels, xyz, counts }: MergedPatches): {
  readonly counts: Float64Array;
  readonly targets: Float64Array;
} {
  const targets = new Float64Array(xyz.length);
  xyzToFitSpace(xyz, targets);
  return {
    counts: counts.map((count, row) => {
      const paper = device.subarray(row * channels, (row + 1) * channels).every((value) => value < 1e-6);
      return paper ? Math.max(PAPER_COUNT, count) : count;
    }),
    targets,
  };
}

/** Fit-space values of device rows; `out` row-major × 3. */
export function inkModelFit(
  model: Pick<InkModel, 'physics' | 'residual'>,
  device: ArrayLike<number>,
  out: Float64Array,
): void {
  const rest = new Float64Array(out.length);
  inkPhysicsFit(model.physics, device, out);
  evaluateSpline(model.residual, device, rest);
  for (let i = 0; i < out.length; i++) out[i] += rest[i];
}

/** XYZ (Y = 100) of device rows. */
export function inkModelXyz(model: FittedInks, device: ArrayLike<number>, out: Float64Array): void {
  inkModelFit(model, device, out);
  fitSpaceToXyz(out, out);
}

/** Lab (D50/2°, measured white) of device rows. */
export function inkModelLab(model: FittedInks, device: ArrayLike<number>, out: Float64Array): void {
  inkModelFit(model, device, out);
  fitSpaceToLab(out, out);
}

/** What the physics leave for the spline. */
export function residualData(
  physics: InkPhysics,
  device: Float64Array,
  targets: Float64Array,
  counts: Float64Array,
): SplineData {
  const fitted = new Float64Array(targets.length);
  inkPhysicsFit(physics, device, fitted);
  return {
    inputs: physics.inks,
    outputs: 3,
    centres: device,
    targets: targets.map((value, i) => value - fitted[i]),
    counts,
  };
}

/** Each fold is predicted by physics and spline that were fitted without it; reading noise is included. */
function crossValidate(
  { patches, inks, physics: { nu }, smoothing }: FittedInks,
  seed: number,
  onProgress: (fraction: number) => void,
): CrossValidation {
  const { counts, targets } = weighedTargets(patches);
  const rows = counts.length;
  const order = shuffle(
    Array.from({ length: rows }, (_, i) => i),
    createRandom(seed),
  );
  const whole: SplineData = { inputs: inks, outputs: 3, centres: patches.device, targets, counts };
  const xyzData: SplineData = { ...whole, targets: patches.xyz };
  const predicted = new Float64Array(rows * 3);
  for (let fold = 0; fold < FOLDS; fold++) {
    const left = order.filter((_, i) => i % FOLDS === fold);
    const kept = order.filter((_, i) => i % FOLDS !== fold);
    const part = takeRows(whole, kept);
    const physics = fitInkPhysics(part.centres, inks, takeRows(xyzData, kept).targets, part.counts, nu);
    const residual = fitLargeSpline(
      residualData(physics, part.centres, part.targets, part.counts),
      smoothing,
    );
    const out = new Float64Array(left.length * 3);
    inkModelFit({ physics, residual }, takeRows(whole, left).centres, out);
    left.forEach((row, i) => predicted.set(out.subarray(3 * i, 3 * i + 3), 3 * row));
    onProgress((fold + 1) / FOLDS);
  }
  fitSpaceToLab(predicted, predicted);
  const measured = new Float64Array(rows * 3);
  fitSpaceToLab(targets, measured);
  const errors = deltaE2000Rows(measured, predicted);
  return { folds: FOLDS, summary: summariseErrors(errors), errors, predicted, measured };
}
