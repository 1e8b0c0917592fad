import { choleskyFactor } from '../numerics/cholesky.ts';
import { dotAt, solveLower } from '../numerics/dot.ts';
import { ProjectedKernel } from './projectedKernel.ts';
import type { SplineData } from './projectedKernel.ts';

/** A point as the uncertainty of a spline sees it. */
export interface SplinePoint {
  readonly device: Float64Array;
  /**
   * What the data say of the point (in the space where their covariance is the identity), its plane, and the kernel to
   * the polynomial rows less half the corner times the plane.
   */
  readonly own: Float64Array;
  /** The same with the last two changed about: `own`·`other` of two points is what the data take off their covariance. */
  readonly other: Float64Array;
  /** Variance of the spline here, relative to that of the kernel. */
  readonly variance: number;
}

/**
 * The smoothing spline as a Gaussian process with the generalised covariance |r|³ (universal kriging; Wahba, Spline
 * Models for Observational Data, 1990, chapter 1): variance at a point and covariance of two points given the data.
 */
export class SplineUncertainty {
  /** Variance of the process for each output: targetsᵀ·(K + λ)⁻¹·targets over the degrees of freedom. */
  readonly amplitude: Float64Array;
  readonly #kernel: ProjectedKernel;

  constructor(
    data: SplineData,
    readonly smoothing: number,
  ) {
    const kernel = new ProjectedKernel(data);
    const { block, free } = kernel;
    for (let i = 0; i < free; i++) block[i * free + i] += smoothing;
    if (!choleskyFactor(block, free))
      throw new Error(`the spline system is not positive definite at λ = ${smoothing}`);
    this.#kernel = kernel;
    this.amplitude = Float64Array.from({ length: data.outputs }, (_, output) => {
      const column = kernel.projectedTargets(output);
      solveLower(block, free, column);
      return column.reduce((sum, value) => sum + value * value, 0) / free;
    });
  }

  /** Prepares a point: one forward substitution, O(n²). */
  at(device: ArrayLike<number>): SplinePoint {
    const { block, free, count, inputs, border, corner } = this.#kernel;
    const m = inputs + 1;
    const all = new Float64Array(count);
    this.#kernel.projectedKernelAt(device, all);
    const plane = new Float64Array(m);
    this.#kernel.planeWeights(device, plane);
    const seen = all.slice(m);
    for (let i = 0; i < free; i++) for (let c = 0; c < m; c++) seen[i] -= border[i * m + c] * plane[c];
    solveLower(block, free, seen);
    const far = all.slice(0, m);
    for (let r = 0; r < m; r++)
      for (let c = 0; c < m; c++)
        far[r] -= 0.5 * (corner[r * m + c] + (r === c ? this.smoothing : 0)) * plane[c];
    const own = joined(seen, plane, far);
    const other = joined(seen, far, plane);
    const variance = Math.max(0, -dotAt(own, 0, other, 0, own.length));
    return { device: Float64Array.from(device), own, other, variance };
  }

  /** Covariance of the spline at two points, relative to that of the kernel. */
  covariance(a: SplinePoint, b: SplinePoint): number {
    const from = a.device;
    const to = b.device;
    let squared = 0;
    for (let c = 0; c < from.length; c++) {
      const apart = from[c] - to[c];
      squared += apart * apart;
    }
    return squared * Math.sqrt(squared) - dotAt(a.own, 0, b.other, 0, a.own.length);
  }
}

function joined(seen: Float64Array, a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(seen.length + a.length + b.length);
  out.set(seen);
  out.set(a, seen.length);
  out.set(b, seen.length + a.length);
  return out;
}
