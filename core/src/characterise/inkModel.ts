import { chooseSmoothings } from './chooseSmoothing.ts';
import { committeePart } from './committeePart.ts';
import { crossValidateInks } from './crossValidateInks.ts';
import { fitSpaceToLab, fitSpaceToXyz } from './fitSpace.ts';
import { fitLargeSpline } from './fitLargeSpline.ts';
import { fitInkPhysics } from './inkPhysics.ts';
import type { InkPhysics } from './inkPhysics.ts';
import type { ToneFreedom } from './bandFit.ts';
import { inkModelFit, residualData, weighedTargets } from './inkResidual.ts';
import { mergeRepeats } from './mergeRepeats.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import type { SplineData } from './projectedKernel.ts';
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
  const validated = crossValidateInks(fitted, seed, (fraction) => onProgress(0.55 + 0.45 * fraction));
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
      const part = (own: InkPhysics, from: SplineData, factor: number): ModelOfInks => ({
        ...{ inks, physics: own },
        residual: fitLargeSpline(committeePart(from, seed), factor),
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
