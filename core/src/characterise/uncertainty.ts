import type { SplinePoint } from './splineUncertainty.ts';

/** A device value with the share that its colour has in ΔE00. */
export interface UncertainPoint extends SplinePoint {
  /** ΔE00 for a standard deviation of one. */
  readonly weight: number;
}

/** How sure one can be of colours at device values, given what was read. */
export interface Uncertainty {
  at(device: ArrayLike<number>): UncertainPoint;
  /** Covariance of two points in the units that `variance` has. */
  covariance(a: SplinePoint, b: SplinePoint): number;
  /** Variance of one reading, in the same units. */
  readonly noise: number;
}
