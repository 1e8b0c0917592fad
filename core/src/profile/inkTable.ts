import type { ForwardGrid } from './forwardGrid.ts';

/** Colours of inks by a table, as colour engines interpolate in it. */
export interface DeviceTable {
  readonly grid: ForwardGrid;
  /** Media-relative Lab of what was evaluated last. */
  readonly lab: Float64Array;
  /** d(L, a, b)/d(input), row-major output × input; exact within a cell. */
  readonly jacobian: Float64Array;
  evaluate(x: ArrayLike<number>): void;
}

/** Evaluates a table of four inputs as colour engines do: linear along the first, tetrahedral over the others. */
export class InkTable implements DeviceTable {
  readonly lab = new Float64Array(3);
  /** d(L, a, b)/d(input), row-major output × 4; exact within a cell. */
  readonly jacobian = new Float64Array(12);
  readonly #low = new Float64Array(3);
  readonly #high = new Float64Array(3);
  readonly #slopes = [new Float64Array(9), new Float64Array(9)];

  constructor(readonly grid: ForwardGrid) {
    if (grid.channels !== 4) throw new RangeError(`a table of ${grid.channels} inputs, expected 4`);
  }

  evaluate(x: ArrayLike<number>): void {
    const n = this.grid.points;
    const scale = n - 1;
    const first = Math.min(1, Math.max(0, x[0])) * scale;
    const cell = Math.min(Math.floor(first), n - 2);
    const share = first - cell;
    const stride = 3 * n * n * n;
    this.#three(x, cell * stride, this.#low, this.#slopes[0]);
    this.#three(x, (cell + 1) * stride, this.#high, this.#slopes[1]);
    const [s0, s1] = this.#slopes;
    for (let o = 0; o < 3; o++) {
      const step = this.#high[o] - this.#low[o];
      this.lab[o] = this.#low[o] + share * step;
      this.jacobian[4 * o] = step * scale;
      for (let i = 0; i < 3; i++)
        this.jacobian[4 * o + 1 + i] = s0[3 * o + i] + share * (s1[3 * o + i] - s0[3 * o + i]);
    }
  }

  /** The three inner inputs from `base` on. */
  #three(x: ArrayLike<number>, base: number, out: Float64Array, slopes: Float64Array): void {
    const n = this.grid.points;
    const scale = n - 1;
    const lab = this.grid.lab;
    const p0 = Math.min(1, Math.max(0, x[1])) * scale;
    const p1 = Math.min(1, Math.max(0, x[2])) * scale;
    const p2 = Math.min(1, Math.max(0, x[3])) * scale;
    const c0 = Math.min(Math.floor(p0), n - 2);
    const c1 = Math.min(Math.floor(p1), n - 2);
    const c2 = Math.min(Math.floor(p2), n - 2);
    const f0 = p0 - c0;
    const f1 = p1 - c1;
    const f2 = p2 - c2;
    // The tetrahedron: the inputs by falling share, in scalars, since this is called many million times.
    let a = 0;
    let b = 1;
    let c = 2;
    if (f0 >= f1) {
      if (f1 < f2) {
        a = f0 >= f2 ? 0 : 2;
        b = f0 >= f2 ? 2 : 0;
        c = 1;
      }
    } else if (f0 >= f2) {
      a = 1;
      b = 0;
    } else {
      a = f1 >= f2 ? 1 : 2;
      b = f1 >= f2 ? 2 : 1;
      c = 0;
    }
    const fa = a === 0 ? f0 : a === 1 ? f1 : f2;
    const fb = b === 0 ? f0 : b === 1 ? f1 : f2;
    const fc = c === 0 ? f0 : c === 1 ? f1 : f2;
    const s1 = 3 * n;
    const s0 = s1 * n;
    const v0 = base + c0 * s0 + c1 * s1 + c2 * 3;
    const v1 = v0 + (a === 0 ? s0 : a === 1 ? s1 : 3);
    const v3 = v0 + s0 + s1 + 3;
    const v2 = v3 - (c === 0 ? s0 : c === 1 ? s1 : 3);
    for (let o = 0; o < 3; o++) {
      const y0 = lab[v0 + o];
      const y1 = lab[v1 + o];
      const y2 = lab[v2 + o];
      const da = y1 - y0;
      const db = y2 - y1;
      const dc = lab[v3 + o] - y2;
      out[o] = y0 + fa * da + fb * db + fc * dc;
      slopes[3 * o + a] = da * scale;
      slopes[3 * o + b] = db * scale;
      slopes[3 * o + c] = dc * scale;
    }
  }
}
