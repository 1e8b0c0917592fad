import { evaluateSpline } from './radialSpline.ts';
import type { RadialSpline } from './radialSpline.ts';

/** The data a spline is fitted to. */
export interface SplineData {
  readonly inputs: number;
  readonly outputs: number;
  /** Row-major n × inputs, distinct rows that do not lie in a plane. */
  readonly centres: Float64Array;
  /** Row-major n × outputs. */
  readonly targets: Float64Array;
  /** Readings behind each row, > 0. */
  readonly counts: Float64Array;
}

/**
 * The kernel |d_i − d_j|³ of a smoothing problem with its linear polynomial projected out: rows are scaled by the
 * root of their count of readings, and Householder reflectors of the scaled polynomial are applied from both sides.
 */
export class ProjectedKernel {
  readonly count: number;
  /** Rows left after the projection, n − 1 − inputs. */
  readonly free: number;
  /** Row-major free × free, positive definite. */
  readonly block: Float64Array;
  /** The projected kernel beside the block: row-major free × (1 + inputs), and (1 + inputs)² in the corner. */
  readonly border: Float64Array;
  readonly corner: Float64Array;
  readonly inputs: number;
  readonly outputs: number;
  readonly centres: Float64Array;
  readonly reflectors: Float64Array[] = [];
  readonly #r: Float64Array;
  readonly #scale: Float64Array;
  readonly #targets: Float64Array;

  constructor({ inputs, outputs, centres, targets, counts }: SplineData) {
    const n = counts.length;
    const m = inputs + 1;
    if (centres.length !== n * inputs || targets.length !== n * outputs)
      throw new RangeError(`${n} counts, ${centres.length} coordinates, ${targets.length} targets`);
    if (n <= m + 1) throw new RangeError(`${n} patches are too few for a spline of ${inputs} inputs`);
    this.count = n;
    this.free = n - m;
    this.inputs = inputs;
    this.outputs = outputs;
    this.centres = centres;
    this.#scale = counts.map(Math.sqrt);
    this.#targets = targets.map((value, i) => value * this.#scale[Math.floor(i / outputs)]);
    this.#r = this.#factorPolynomial(m);
    const kernel = this.#scaledKernel();
    twoSided(kernel, n, this.reflectors);
    this.block = new Float64Array(this.free * this.free);
    for (let i = 0; i < this.free; i++)
      this.block.set(kernel.subarray((i + m) * n + m, (i + m + 1) * n), i * this.free);
    this.border = new Float64Array(this.free * m);
    for (let i = 0; i < this.free; i++) this.border.set(kernel.subarray((i + m) * n, (i + m) * n + m), i * m);
    this.corner = new Float64Array(m * m);
    for (let i = 0; i < m; i++) this.corner.set(kernel.subarray(i * n, i * n + m), i * m);
  }

  /** The kernel between the rows and one point, scaled and turned into the projected space: polynomial part first. */
  projectedKernelAt(point: ArrayLike<number>, out: Float64Array): void {
    const { count, inputs, centres } = this;
    for (let i = 0; i < count; i++) {
      let sum = 0;
      for (let c = 0; c < inputs; c++) {
        const x = centres[i * inputs + c] - point[c];
        sum += x * x;
      }
      out[i] = sum * Math.sqrt(sum) * this.#scale[i];
    }
    for (const [c, v] of this.reflectors.entries()) reflect(v, out, c);
  }

  /** u with Rᵀ·u = (1, point): the polynomial part of the weights that reproduce a plane at the point. */
  planeWeights(point: ArrayLike<number>, out: Float64Array): void {
    const m = this.inputs + 1;
    for (let c = 0; c < m; c++) {
      let sum = c === 0 ? 1 : point[c - 1];
      for (let k = 0; k < c; k++) sum -= this.#r[k * m + c] * out[k];
      out[c] = sum / this.#r[c * m + c];
    }
  }

  /** Scaled targets of one output in the projected space. */
  projectedTargets(output: number): Float64Array {
    const column = Float64Array.from(
      { length: this.count },
      (_, i) => this.#targets[i * this.outputs + output],
    );
    for (const [c, v] of this.reflectors.entries()) reflect(v, column, c);
    return column.slice(this.inputs + 1);
  }

  /** From projected space back to (scaled) rows. */
  unproject(projected: Float64Array): Float64Array {
    const column = new Float64Array(this.count);
    column.set(projected, this.inputs + 1);
    for (let c = this.reflectors.length - 1; c >= 0; c--) reflect(this.reflectors[c], column, c);
    return column;
  }

  /** The spline whose projected coefficients are given, one list per output. */
  spline(projected: readonly Float64Array[]): RadialSpline {
    const alpha = new Float64Array(this.count * this.outputs);
    projected.forEach((column, o) =>
      this.unproject(column).forEach((value, i) => (alpha[i * this.outputs + o] = value * this.#scale[i])),
    );
    const { inputs, outputs, centres } = this;
    const spline = { inputs, outputs, centres, alpha, beta: new Float64Array((inputs + 1) * outputs) };
    this.#solvePolynomial(spline);
    return spline;
  }

  /** β from R·β = the polynomial rows of Qᵀ·(targets − K·α). */
  #solvePolynomial(spline: RadialSpline): void {
    const n = this.count;
    const m = this.inputs + 1;
    const kernelPart = new Float64Array(n * this.outputs);
    evaluateSpline(spline, this.centres, kernelPart);
    for (let o = 0; o < this.outputs; o++) {
      const rest = Float64Array.from(
        { length: n },
        (_, i) => this.#targets[i * this.outputs + o] - kernelPart[i * this.outputs + o] * this.#scale[i],
      );
      for (const [c, v] of this.reflectors.entries()) reflect(v, rest, c);
      for (let c = m - 1; c >= 0; c--) {
        let sum = rest[c];
        for (let k = c + 1; k < m; k++) sum -= this.#r[c * m + k] * spline.beta[k * this.outputs + o];
        spline.beta[c * this.outputs + o] = sum / this.#r[c * m + c];
      }
    }
  }

  #factorPolynomial(m: number): Float64Array {
    const n = this.count;
    const columns: Float64Array[] = [];
    for (let c = 0; c < m; c++) {
      const column = new Float64Array(n);
      for (let i = 0; i < n; i++)
        column[i] = this.#scale[i] * (c === 0 ? 1 : this.centres[i * this.inputs + c - 1]);
      columns.push(column);
    }
    const r = new Float64Array(m * m);
    for (let c = 0; c < m; c++) {
      const v = columns[c].slice();
      let norm = 0;
      for (let i = c; i < n; i++) norm += v[i] * v[i];
      norm = Math.sqrt(norm);
      v.fill(0, 0, c);
      v[c] -= v[c] > 0 ? -norm : norm;
      let size = 0;
      for (let i = c; i < n; i++) size += v[i] * v[i];
      if (!(size > 1e-20)) throw new RangeError('the device values of the patches lie in a plane');
      const unit = v.map((x) => (x * Math.SQRT2) / Math.sqrt(size));
      this.reflectors.push(unit);
      for (let k = c; k < m; k++) reflect(unit, columns[k], c);
      for (let k = 0; k <= c; k++) r[k * m + c] = columns[c][k];
    }
    return r;
  }

  #scaledKernel(): Float64Array {
    const n = this.count;
    const d = this.inputs;
    const k = new Float64Array(n * n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < i; j++) {
        let sum = 0;
        for (let c = 0; c < d; c++) {
          const x = this.centres[i * d + c] - this.centres[j * d + c];
          sum += x * x;
        }
        const value = sum * Math.sqrt(sum) * this.#scale[i] * this.#scale[j];
        k[i * n + j] = value;
        k[j * n + i] = value;
      }
    return k;
  }
}

/** x ← (I − v·vᵀ)·x, where |v|² = 2 and v is zero before `from`. */
function reflect(v: Float64Array, x: Float64Array, from: number): void {
  let dot = 0;
  for (let i = from; i < x.length; i++) dot += v[i] * x[i];
  for (let i = from; i < x.length; i++) x[i] -= dot * v[i];
}

/** A ← H·A·H for each reflector H in turn, A symmetric n×n. */
function twoSided(a: Float64Array, n: number, reflectors: readonly Float64Array[]): void {
  const w = new Float64Array(n);
  for (const v of reflectors) {
    for (let i = 0; i < n; i++) {
      let sum = 0;
      const row = i * n;
      for (let j = 0; j < n; j++) sum += a[row + j] * v[j];
      w[i] = sum;
    }
    let vw = 0;
    for (let i = 0; i < n; i++) vw += v[i] * w[i];
    // A − v·wᵀ − w·vᵀ + (vᵀw)·v·vᵀ
    for (let i = 0; i < n; i++) w[i] -= (vw / 2) * v[i];
    for (let i = 0; i < n; i++) {
      const row = i * n;
      const vi = v[i];
      const wi = w[i];
      for (let j = 0; j < n; j++) a[row + j] -= vi * w[j] + wi * v[j];
    }
  }
}
