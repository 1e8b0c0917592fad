import { choleskyFactor } from '../numerics/cholesky.ts';
import { ProjectedKernel } from './projectedKernel.ts';
import type { SplineData } from './projectedKernel.ts';

/** A point as the uncertainty of a spline sees it. */
export interface SplinePoint {
  readonly device: Float64Array;
  /** What the data say of the point, in the space where their covariance is the identity. */
  readonly seen: Float64Array;
  readonly plane: Float64Array;
  /** Kernel to the polynomial rows, less half the corner times `plane`. */
  readonly far: Float64Array;
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
      forward(block, free, column);
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
    forward(block, free, seen);
    const far = all.slice(0, m);
    for (let r = 0; r < m; r++)
      for (let c = 0; c < m; c++)
        far[r] -= 0.5 * (corner[r * m + c] + (r === c ? this.smoothing : 0)) * plane[c];
    const point = { device: Float64Array.from(device), seen, plane, far, variance: 0 };
    return { ...point, variance: Math.max(0, this.covariance(point, point)) };
  }

  /** Covariance of the spline at two points, relative to that of the kernel. */
  covariance(a: SplinePoint, b: SplinePoint): number {
    let squared = 0;
    for (let c = 0; c < a.device.length; c++) squared += (a.device[c] - b.device[c]) ** 2;
    let sum = squared * Math.sqrt(squared);
    for (let c = 0; c < a.plane.length; c++) sum -= b.plane[c] * a.far[c] + a.plane[c] * b.far[c];
    return sum - dot(a.seen, b.seen);
  }
}

/** L·x = b in place. */
function forward(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let sum = b[i];
    const row = i * n;
    for (let k = 0; k < i; k++) sum -= l[row + k] * b[k];
    b[i] = sum / l[row + i];
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}
