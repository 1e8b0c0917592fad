import { xyzToFitSpace } from './fitSpace.ts';
import { inkPhysicsFit } from './inkPhysics.ts';
import type { InkPhysics } from './inkPhysics.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import { evaluateSpline } from './radialSpline.ts';
import type { RadialSpline } from './radialSpline.ts';
import type { SplineData } from './projectedKernel.ts';

/** Paper is held: it weighs as its readings, and as twelve at least. */
const PAPER_COUNT = 12;

/** Readings behind each patch, with the paper held, and the colours in fit space. */
export function weighedTargets({ device, channels, xyz, counts }: MergedPatches): {
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

/** Fit-space values of device rows; `out` row-major × 3. */
export function inkModelFit(
  model: { readonly physics: InkPhysics; readonly residual: RadialSpline },
  device: ArrayLike<number>,
  out: Float64Array,
): void {
  const rest = new Float64Array(out.length);
  inkPhysicsFit(model.physics, device, out);
  evaluateSpline(model.residual, device, rest);
  for (let i = 0; i < out.length; i++) out[i] += rest[i];
}
