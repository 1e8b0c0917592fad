import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { chooseSmoothings, takeRows } from './chooseSmoothing.ts';
import { fitSpaceToLab, fitSpaceToXyz, xyzToFitSpace } from './fitSpace.ts';
import { fitLargeSpline } from './fitLargeSpline.ts';
import { fitInkPhysics, inkPhysicsFit } from './inkPhysics.ts';
import type { InkPhysics, ToneFreedom } from './inkPhysics.ts';
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
  /** How freely the tone curves of the physics were let bend. */
  readonly freedom: ToneFreedom;
  readonly residual: RadialSpline;
  readonly patches: MergedPatches;
  readonly smoothing: number;
}

/** What colours are worked out by. */
export type ModelOfInks = Pick<FittedInks, 'inks' | 'physics' | 'residual'>;

/** The model with how well it predicts. */
export interface InkModel extends FittedInks {
  readonly crossValidation: CrossValidation;
  /**
   * Other models of the same patches: those of the cross-validation, each fitted without its fold, those of other tone
   * curves, and those of a smoother and a rougher spline. Where they part from the model, it is not sure.
   */
  readonly committee: readonly ModelOfInks[];
}

/** Paper is held: it weighs as its readings, and as twelve at least. */
const PAPER_COUNT = 12;
const FOLDS = 5;
/**
 * How freely tone curves may bend: most devices want the first; one whose inks turn back is left to the spline by stiff
 * curves, one whose inks are full early or have bumps needs free ones.
 */
const FREEDOMS: readonly ToneFreedom[] = [
  { bends: 7, penalty: 2e-4 },
  { bends: 5, penalty: 2e-3 },
  { bends: 11, penalty: 2e-5 },
];
/** Residuals are told of rows that the physics has seen: what each of its unknowns costs, in shares of a row. */
const UNKNOWN_COST = 5;
/** Smoothings that the committee has beside the best one, in multiples of it. */
const OTHER_SMOOTHINGS = [10, 0.1] as const;
const COMMITTEE_ROWS = 800;
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
  const { fitted, others } = fitCandidates(device, inks, xyz, seed, (fraction) => onProgress(0.5 * fraction));
  const parts = others();
  const validated = crossValidate(fitted, seed, (fraction) => onProgress(0.55 + 0.45 * fraction));
  return { ...fitted, ...validated, committee: [...validated.committee, ...parts] };
}

/** The same without the cross-validation, for previews. */
export function fitInks(
  device: Float64Array,
  inks: number,
  xyz: Float64Array,
  seed = 1,
  onProgress: (fraction: number) => void = () => {},
): FittedInks {
  return fitCandidates(device, inks, xyz, seed, onProgress).fitted;
}

/** The model with the tone curves that predict best, and a way to make those that were not taken. */
function fitCandidates(
  device: Float64Array,
  inks: number,
  xyz: Float64Array,
  seed: number,
  onProgress: (fraction: number) => void,
): { readonly fitted: FittedInks; readonly others: () => ModelOfInks[] } {
  const patches = mergeRepeats(device, inks, xyz);
  const { counts, targets } = weighedTargets(patches);
  const first = fitInkPhysics(patches.device, inks, patches.xyz, counts, FREEDOMS[0]);
  onProgress(0.4);
  const tried = FREEDOMS.map((freedom, i) => {
    const physics =
      i === 0 ? first : fitInkPhysics(patches.device, inks, patches.xyz, counts, freedom, first.nu);
    return { freedom, physics, data: residualData(physics, patches.device, targets, counts) };
  });
  onProgress(0.55);
  const candidates = chooseSmoothings(
    besideEachOther(tried.map(({ data }) => data)),
    3,
    seed,
    RESIDUAL_FACTORS,
  ).map(({ smoothing, residual }, i) => ({
    ...tried[i],
    smoothing,
    score: residual * (1 + (UNKNOWN_COST * ((1 << inks) + inks * tried[i].freedom.bends)) / counts.length),
  }));
  const chosen = candidates.reduce((best, other) => (other.score < best.score ? other : best));
  const { physics, freedom, data, smoothing } = chosen;
  const residual = fitLargeSpline(data, smoothing);
  onProgress(1);
  return {
    fitted: { inks, physics, freedom, residual, patches, smoothing },
    others: () => {
      // Of large charts some rows do: what is sought is where models part, not how well they fit.
      const rows = shuffle([...counts.keys()], createRandom(seed)).slice(0, COMMITTEE_ROWS);
      const part = (own: ModelOfInks['physics'], from: SplineData, factor: number): ModelOfInks => ({
        ...{ inks, physics: own },
        residual: fitLargeSpline(takeRows(from, rows), factor),
      });
      return [
        ...candidates
          .filter((own) => own !== chosen)
          .map((own) => part(own.physics, own.data, own.smoothing)),
        ...OTHER_SMOOTHINGS.map((times) => part(physics, data, times * smoothing)),
      ];
    },
  };
}

/** One problem with the targets of all of them, which have the same rows. */
function besideEachOther(problems: readonly SplineData[]): SplineData {
  const [first] = problems;
  const outputs = problems.length * first.outputs;
  const targets = new Float64Array(first.counts.length * outputs);
  problems.forEach((problem, i) => {
    for (let row = 0; row < first.counts.length; row++)
      for (let o = 0; o < first.outputs; o++)
        targets[row * outputs + i * first.outputs + o] = problem.targets[row * first.outputs + o];
  });
  return { ...first, outputs, targets };
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
export function inkModelXyz(model: ModelOfInks, device: ArrayLike<number>, out: Float64Array): void {
  inkModelFit(model, device, out);
  fitSpaceToXyz(out, out);
}

/** Lab (D50/2°, measured white) of device rows. */
export function inkModelLab(model: ModelOfInks, device: ArrayLike<number>, out: Float64Array): void {
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
  { patches, inks, physics: { nu }, freedom, smoothing }: FittedInks,
  seed: number,
  onProgress: (fraction: number) => void,
): Pick<InkModel, 'crossValidation' | 'committee'> {
  const { counts, targets } = weighedTargets(patches);
  const rows = counts.length;
  const order = shuffle(
    Array.from({ length: rows }, (_, i) => i),
    createRandom(seed),
  );
  const whole: SplineData = { inputs: inks, outputs: 3, centres: patches.device, targets, counts };
  const xyzData: SplineData = { ...whole, targets: patches.xyz };
  const predicted = new Float64Array(rows * 3);
  const committee: ModelOfInks[] = [];
  for (let fold = 0; fold < FOLDS; fold++) {
    const left = order.filter((_, i) => i % FOLDS === fold);
    const kept = order.filter((_, i) => i % FOLDS !== fold);
    const part = takeRows(whole, kept);
    const physics = fitInkPhysics(
      part.centres,
      inks,
      takeRows(xyzData, kept).targets,
      part.counts,
      freedom,
      nu,
    );
    const residual = fitLargeSpline(
      residualData(physics, part.centres, part.targets, part.counts),
      smoothing,
    );
    const out = new Float64Array(left.length * 3);
    committee.push({ inks, physics, residual });
    inkModelFit({ physics, residual }, takeRows(whole, left).centres, out);
    left.forEach((row, i) => predicted.set(out.subarray(3 * i, 3 * i + 3), 3 * row));
    onProgress((fold + 1) / FOLDS);
  }
  fitSpaceToLab(predicted, predicted);
  const measured = new Float64Array(rows * 3);
  fitSpaceToLab(targets, measured);
  const errors = deltaE2000Rows(measured, predicted);
  return {
    crossValidation: { folds: FOLDS, summary: summariseErrors(errors), errors, predicted, measured },
    committee,
  };
}
