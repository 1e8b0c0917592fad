import { choleskyFactor, choleskySolve } from './cholesky.ts';

/** A natural cubic spline through values at its knots. */
export interface CubicSpline {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Second derivatives at the knots, zero at both ends. */
  readonly bend: Float64Array;
}

export interface SmoothingFit {
  readonly spline: CubicSpline;
  readonly smoothing: number;
  /** Residual of each knot from the spline that is fitted without it. */
  readonly leftOut: Float64Array;
}

/** Factors tried: from interpolation of points a hundredth apart to a straight line. */
const FACTORS = Array.from({ length: 25 }, (_, i) => 10 ** (-9 + i / 2.5));

/**
 * The smoothing spline Σ w(y − f(x))² + λ∫f″² whose factor λ leaves the least mean absolute leave-one-out residual
 * (Green and Silverman, Nonparametric Regression, chapter 2).
 * @param x rising, at least four.
 * @param leastFactor no smaller factor is tried: raise it for a smoother curve.
 */
export function fitSmoothingSpline(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  weights: ArrayLike<number>,
  leastFactor = 0,
): SmoothingFit {
  const n = x.length;
  if (n < 4 || y.length !== n || weights.length !== n)
    throw new RangeError(`a spline of ${n} knots, ${y.length} values, ${weights.length} weights`);
  const roughness = roughnessMatrix(x);
  const factors = FACTORS.filter((factor) => factor >= leastFactor);
  let best: { score: number; fit: SmoothingFit } | undefined;
  for (const smoothing of factors.length > 0 ? factors : [leastFactor]) {
    const { fitted, leftOut } = solve(roughness, y, weights, smoothing);
    let score = 0;
    // The ends are extrapolated when left out: they say little about smoothness.
    for (let i = 1; i < n - 1; i++) score += Math.abs(leftOut[i]);
    if (best === undefined || score < best.score)
      best = {
        score,
        fit: { spline: naturalSpline(x, fitted), smoothing, leftOut },
      };
  }
  if (best === undefined) throw new RangeError('no smoothing factor left');
  return best.fit;
}

/** The natural cubic spline through points. */
export function naturalSpline(x: ArrayLike<number>, y: ArrayLike<number>): CubicSpline {
  const n = x.length;
  const diagonal = new Float64Array(n);
  const right = new Float64Array(n);
  const bend = new Float64Array(n);
  for (let i = 1; i < n - 1; i++) {
    const h0 = x[i] - x[i - 1];
    const h1 = x[i + 1] - x[i];
    diagonal[i] = (h0 + h1) / 3;
    right[i] = (y[i + 1] - y[i]) / h1 - (y[i] - y[i - 1]) / h0;
    if (i > 1) {
      const factor = h0 / 6 / diagonal[i - 1];
      diagonal[i] -= (factor * h0) / 6;
      right[i] -= factor * right[i - 1];
    }
  }
  for (let i = n - 2; i >= 1; i--) bend[i] = (right[i] - ((x[i + 1] - x[i]) / 6) * bend[i + 1]) / diagonal[i];
  return { x: Float64Array.from(x), y: Float64Array.from(y), bend };
}

/** Value of a spline; beyond its knots it goes on as a straight line. */
export function evaluateCubicSpline({ x, y, bend }: CubicSpline, at: number): number {
  const n = x.length;
  let low = 0;
  let high = n - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (x[middle] <= at) low = middle;
    else high = middle;
  }
  const h = x[high] - x[low];
  const slope = (y[high] - y[low]) / h;
  if (at <= x[0]) return y[0] + (at - x[0]) * (slope - (h / 6) * bend[1]);
  if (at >= x[n - 1]) return y[n - 1] + (at - x[n - 1]) * (slope + (h / 6) * bend[n - 2]);
  const a = (x[high] - at) / h;
  const b = (at - x[low]) / h;
  return (
    a * y[low] + b * y[high] + ((a * a * a - a) * bend[low] + (b * b * b - b) * bend[high]) * ((h * h) / 6)
  );
}

/** Q·R⁻¹·Qᵀ, the matrix of ∫f″² in the values at the knots; row-major n × n. */
function roughnessMatrix(x: ArrayLike<number>): Float64Array {
  const n = x.length;
  const m = n - 2;
  const r = new Float64Array(m * m);
  const q = new Float64Array(n * m);
  for (let j = 0; j < m; j++) {
    const h0 = x[j + 1] - x[j];
    const h1 = x[j + 2] - x[j + 1];
    if (!(h0 > 0 && h1 > 0)) throw new RangeError('the knots of a spline must rise');
    r[j * m + j] = (h0 + h1) / 3;
    if (j + 1 < m) r[(j + 1) * m + j] = h1 / 6;
    q[j * m + j] = 1 / h0;
    q[(j + 1) * m + j] = -1 / h0 - 1 / h1;
    q[(j + 2) * m + j] = 1 / h1;
  }
  choleskyFactor(r, m);
  const out = new Float64Array(n * n);
  const column = new Float64Array(m);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < m; j++) column[j] = q[i * m + j];
    choleskySolve(r, m, column);
    for (let k = 0; k < n; k++) {
      let sum = 0;
      for (let j = Math.max(0, k - 2); j <= Math.min(m - 1, k); j++) sum += q[k * m + j] * column[j];
      out[i * n + k] = sum;
    }
  }
  return out;
}

function solve(
  roughness: Float64Array,
  y: ArrayLike<number>,
  weights: ArrayLike<number>,
  smoothing: number,
): { fitted: Float64Array; leftOut: Float64Array } {
  const n = y.length;
  const a = roughness.map((value) => value * smoothing);
  for (let i = 0; i < n; i++) a[i * n + i] += weights[i];
  if (!choleskyFactor(a, n)) throw new Error('the smoothing system is not positive definite');
  const fitted = Float64Array.from(y, (value, i) => value * weights[i]);
  choleskySolve(a, n, fitted);
  const unit = new Float64Array(n);
  const leftOut = Float64Array.from(y, (value, i) => {
    unit.fill(0);
    unit[i] = weights[i];
    choleskySolve(a, n, unit);
    return (value - fitted[i]) / Math.max(1e-9, 1 - unit[i]);
  });
  return { fitted, leftOut };
}
