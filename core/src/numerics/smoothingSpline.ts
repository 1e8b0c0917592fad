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
 * The smoothing spline Σ w(y − f(x))² + λ∫f″² whose factor λ leaves the least mean absolute leave-one-out residual,
 * in time that grows with the number of knots alone (Green and Silverman, Nonparametric Regression, chapters 2 and 3).
 * @param x rising, at least four.
 * @param weights over zero.
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
  for (let i = 0; i < n; i++)
    if (!(weights[i] > 0)) throw new RangeError('the weights of a spline are over zero');
  const bands = bandsOf(x, y, weights);
  const factors = FACTORS.filter((factor) => factor >= leastFactor);
  let best: { score: number; fit: SmoothingFit } | undefined;
  for (const smoothing of factors.length > 0 ? factors : [leastFactor]) {
    const { fitted, bend, leftOut } = solve(bands, y, weights, smoothing);
    let score = 0;
    // The ends are extrapolated when left out: they say little about smoothness.
    for (let i = 1; i < n - 1; i++) score += Math.abs(leftOut[i]);
    if (best === undefined || score < best.score)
      best = {
        score,
        fit: { spline: { x: Float64Array.from(x), y: fitted, bend }, smoothing, leftOut },
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

/** Diagonals of two symmetric matrices of five diagonals, of one row per inner knot. */
interface Bands {
  /** 1 ⁄ (x[i + 1] − x[i]) */
  readonly steep: Float64Array;
  /** R: a third of the two neighbouring intervals, and a sixth of the one between two inner knots. */
  readonly r0: Float64Array;
  readonly r1: Float64Array;
  /** Qᵀ·W⁻¹·Q */
  readonly q0: Float64Array;
  readonly q1: Float64Array;
  readonly q2: Float64Array;
  /** Qᵀ·y: how much the slope changes at each inner knot. */
  readonly turn: Float64Array;
}

/** Q takes values at the knots to changes of slope at the inner ones: column j is steep[j], −both, steep[j + 1]. */
function bandsOf(x: ArrayLike<number>, y: ArrayLike<number>, weights: ArrayLike<number>): Bands {
  const n = x.length;
  const m = n - 2;
  const steep = new Float64Array(n - 1);
  for (let i = 0; i < n - 1; i++) {
    if (!(x[i + 1] > x[i])) throw new RangeError('the knots of a spline must rise');
    steep[i] = 1 / (x[i + 1] - x[i]);
  }
  const [r0, r1, q0, q1, q2, turn] = Array.from({ length: 6 }, () => new Float64Array(m));
  const both = (j: number): number => steep[j] + steep[j + 1];
  for (let j = 0; j < m; j++) {
    r0[j] = (x[j + 2] - x[j]) / 3;
    q0[j] = steep[j] ** 2 / weights[j] + both(j) ** 2 / weights[j + 1] + steep[j + 1] ** 2 / weights[j + 2];
    turn[j] = (y[j + 2] - y[j + 1]) * steep[j + 1] - (y[j + 1] - y[j]) * steep[j];
    if (j + 1 < m) {
      r1[j] = (x[j + 2] - x[j + 1]) / 6;
      q1[j] = -steep[j + 1] * (both(j) / weights[j + 1] + both(j + 1) / weights[j + 2]);
    }
    if (j + 2 < m) q2[j] = (steep[j + 1] * steep[j + 2]) / weights[j + 2];
  }
  return { steep, r0, r1, q0, q1, q2, turn };
}

/** Zeros on both sides of the inner knots, so that the ends need no case of their own: inner knot j stands at j + 2. */
const PAD = 2;

/** Reinsch's equations (R + λQᵀW⁻¹Q)·f″ = Qᵀy, and what each knot leaves when it is left out. */
function solve(
  { steep, r0, r1, q0, q1, q2, turn }: Bands,
  y: ArrayLike<number>,
  weights: ArrayLike<number>,
  smoothing: number,
): { fitted: Float64Array; bend: Float64Array; leftOut: Float64Array } {
  const n = y.length;
  const m = n - 2;
  const padded = (): Float64Array => new Float64Array(m + 2 * PAD);
  // L·D·Lᵀ of the matrix.
  const [d, l1, l2, u] = [padded(), padded(), padded(), padded()];
  for (let j = 0; j < m; j++) {
    const k = j + PAD;
    d[k] = r0[j] + smoothing * q0[j] - l1[k - 1] ** 2 * d[k - 1] - l2[k - 2] ** 2 * d[k - 2];
    if (!(d[k] > 0)) throw new Error('the smoothing system is not positive definite');
    l1[k] = (r1[j] + smoothing * q1[j] - l1[k - 1] * l2[k - 1] * d[k - 1]) / d[k];
    l2[k] = (smoothing * q2[j]) / d[k];
    u[k] = turn[j] - l1[k - 1] * u[k - 1] - l2[k - 2] * u[k - 2];
  }
  const second = padded();
  // The middle diagonals of the inverse, from its last row up (Hutchinson and de Hoog, 1985).
  const [s0, s1, s2] = [padded(), padded(), padded()];
  for (let k = m + PAD - 1; k >= PAD; k--) {
    second[k] = u[k] / d[k] - l1[k] * second[k + 1] - l2[k] * second[k + 2];
    s1[k] = -l1[k] * s0[k + 1] - l2[k] * s1[k + 1];
    s2[k] = -l1[k] * s1[k + 1] - l2[k] * s0[k + 2];
    s0[k] = 1 / d[k] - l1[k] * s1[k] - l2[k] * s2[k];
  }
  const fitted = new Float64Array(n);
  const leftOut = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    // Row i of Q meets the columns i − 2, i − 1 and i, which stand at i, i + 1 and i + 2.
    const first = i > 0 ? steep[i - 1] : 0;
    const last = i < n - 1 ? steep[i] : 0;
    const middle = -first - last;
    const off = first * second[i] + middle * second[i + 1] + last * second[i + 2];
    const own =
      first * (first * s0[i] + 2 * middle * s1[i] + 2 * last * s2[i]) +
      middle * (middle * s0[i + 1] + 2 * last * s1[i + 1]) +
      last * last * s0[i + 2];
    fitted[i] = y[i] - (smoothing * off) / weights[i];
    leftOut[i] = off / own;
  }
  // The two ends do not bend.
  return { fitted, bend: second.slice(1, n + 1), leftOut };
}
