/** A = Q·T·Qᵀ with T tridiagonal. */
export interface Tridiagonal {
  readonly diagonal: Float64Array;
  /** Element i couples rows i and i + 1. */
  readonly offDiagonal: Float64Array;
  /** Row-major n×n, orthogonal. */
  readonly q: Float64Array;
}

/**
 * Householder reduction of a symmetric matrix to tridiagonal form (Golub and Van Loan, 8.3.1). Rank-two update and
 * the next matrix-vector product share one pass over the lower triangle, so that memory is read once per step.
 * @param a row-major n×n, symmetric; its lower triangle is overwritten.
 */
export function tridiagonalise(a: Float64Array, n: number): Tridiagonal {
  if (a.length < n * n) throw new RangeError(`matrix of ${a.length} values for n = ${n}`);
  const diagonal = new Float64Array(n);
  const offDiagonal = new Float64Array(Math.max(0, n - 1));
  const reflectors = new Float64Array(n * n); // row k: reflector of step k, zero before k + 1
  const v = new Float64Array(n); // reflector and update of the step before, not yet applied to A
  const w = new Float64Array(n);
  const next = new Float64Array(n);
  const product = new Float64Array(n);
  let pending = false;
  for (let k = 0; k < n; k++) {
    // Column k with the pending update applied.
    for (let i = k; i < n; i++) {
      let value = a[i * n + k];
      if (pending) value -= v[i] * w[k] + w[i] * v[k];
      next[i] = value;
    }
    diagonal[k] = next[k];
    if (k === n - 1) break;
    let norm = 0;
    for (let i = k + 1; i < n; i++) norm += next[i] * next[i];
    norm = Math.sqrt(norm);
    const target = next[k + 1] > 0 ? -norm : norm;
    offDiagonal[k] = target;
    next[k + 1] -= target;
    let size = 0;
    for (let i = k + 1; i < n; i++) size += next[i] * next[i];
    const unit = size > 0 ? Math.SQRT2 / Math.sqrt(size) : 0;
    for (let i = k + 1; i < n; i++) next[i] *= unit;
    next[k] = 0;
    // One pass: A ← A − v·wᵀ − w·vᵀ on the trailing block, and product = A·next.
    product.fill(0);
    for (let i = k + 1; i < n; i++) {
      const row = i * n;
      const xi = next[i];
      let sum = 0;
      if (pending) {
        const vi = v[i];
        const wi = w[i];
        for (let j = k + 1; j < i; j++) {
          const value = a[row + j] - vi * w[j] - wi * v[j];
          a[row + j] = value;
          sum += value * next[j];
          product[j] += value * xi;
        }
        const value = a[row + i] - 2 * vi * wi;
        a[row + i] = value;
        product[i] += sum + value * xi;
      } else {
        for (let j = k + 1; j < i; j++) {
          const value = a[row + j];
          sum += value * next[j];
          product[j] += value * xi;
        }
        product[i] += sum + a[row + i] * xi;
      }
    }
    let half = 0;
    for (let i = k + 1; i < n; i++) half += next[i] * product[i];
    half /= 2;
    for (let i = k + 1; i < n; i++) {
      v[i] = next[i];
      w[i] = product[i] - half * next[i];
      reflectors[k * n + i] = next[i];
    }
    v[k] = 0;
    w[k] = 0;
    pending = true;
  }
  return { diagonal, offDiagonal, q: accumulate(reflectors, n) };
}

/** Q = H₀·H₁·… from the last reflector back, so that only the trailing block is touched. */
function accumulate(reflectors: Float64Array, n: number): Float64Array {
  const q = new Float64Array(n * n);
  for (let i = 0; i < n; i++) q[i * n + i] = 1;
  const sums = new Float64Array(n);
  for (let k = n - 2; k >= 0; k--) {
    const v = k * n;
    sums.fill(0);
    for (let i = k + 1; i < n; i++) {
      const vi = reflectors[v + i];
      if (vi === 0) continue;
      const row = i * n;
      for (let j = k + 1; j < n; j++) sums[j] += vi * q[row + j];
    }
    for (let i = k + 1; i < n; i++) {
      const vi = reflectors[v + i];
      if (vi === 0) continue;
      const row = i * n;
      for (let j = k + 1; j < n; j++) q[row + j] -= vi * sums[j];
    }
  }
  return q;
}

/** LDLᵀ factors of T + shift·I, for `solveTridiagonal`. */
export interface TridiagonalFactor {
  readonly inverseDiagonal: Float64Array;
  readonly multipliers: Float64Array;
}

/** Factors T + shift·I without pivoting; throws where it is not positive definite. */
export function factorTridiagonal(t: Tridiagonal, shift: number): TridiagonalFactor {
  const n = t.diagonal.length;
  const inverseDiagonal = new Float64Array(n);
  const multipliers = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let pivot = t.diagonal[i] + shift;
    if (i > 0) pivot -= multipliers[i - 1] * t.offDiagonal[i - 1];
    if (!(pivot > 0)) throw new Error(`T + ${shift} is not positive definite at row ${i}`);
    inverseDiagonal[i] = 1 / pivot;
    if (i < n - 1) multipliers[i] = t.offDiagonal[i] / pivot;
  }
  return { inverseDiagonal, multipliers };
}

/** Solves (T + shift·I)·x = b in place. */
export function solveTridiagonal(factor: TridiagonalFactor, x: Float64Array): void {
  const { inverseDiagonal, multipliers } = factor;
  const n = inverseDiagonal.length;
  for (let i = 1; i < n; i++) x[i] -= multipliers[i - 1] * x[i - 1];
  x[n - 1] *= inverseDiagonal[n - 1];
  for (let i = n - 2; i >= 0; i--) x[i] = x[i] * inverseDiagonal[i] - multipliers[i] * x[i + 1];
}
