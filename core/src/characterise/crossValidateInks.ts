import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { takeRows } from './chooseSmoothing.ts';
import { fitSpaceToLab } from './fitSpace.ts';
import { fitLargeSpline } from './fitLargeSpline.ts';
import { fitInkPhysics } from './inkPhysics.ts';
import type { FittedInks, InkModel, ModelOfInks } from './inkModel.ts';
import { inkModelFit, residualData, weighedTargets } from './inkResidual.ts';
import type { SplineData } from './projectedKernel.ts';

const FOLDS = 5;

/** Each fold is predicted by physics and spline that were fitted without it; reading noise is included. */
export function crossValidateInks(
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
