import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { ProjectedKernel } from './projectedKernel.ts';
import type { SplineData } from './projectedKernel.ts';
import type { RadialSpline } from './radialSpline.ts';

/** The smoothing spline of `data` for a smoothing factor in the units of the kernel: one Cholesky factorisation. */
export function fitSpline(data: SplineData, smoothing: number): RadialSpline {
  const kernel = new ProjectedKernel(data);
  const { block, free } = kernel;
  for (let i = 0; i < free; i++) block[i * free + i] += smoothing;
  if (!choleskyFactor(block, free))
    throw new Error(`the spline system is not positive definite at λ = ${smoothing}`);
  const columns = Array.from({ length: data.outputs }, (_, output) => {
    const column = kernel.projectedTargets(output);
    choleskySolve(block, free, column);
    return column;
  });
  return kernel.spline(columns);
}
