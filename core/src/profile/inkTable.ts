import type { ForwardGrid } from './forwardGrid.ts';

/** Evaluates a table of four inputs as colour engines do: linear along the first, tetrahedral over the others. */
export class InkTable {
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
    const f = [p0 - c0, p1 - c1, p2 - c2];
    const strides = [3 * n * n, 3 * n, 3];
    let a = 0;
    let b = 1;
    let c = 2;
    if (f[a] < f[b]) [a, b] = [b, a];
    if (f[b] < f[c]) [b, c] = [c, b];
    if (f[a] < f[b]) [a, b] = [b, a];
    const v0 = base + c0 * strides[0] + c1 * strides[1] + c2 * strides[2];
    const v1 = v0 + strides[a];
    const v2 = v1 + strides[b];
    const v3 = v2 + strides[c];
    for (let o = 0; o < 3; o++) {
      const y0 = lab[v0 + o];
      const da = lab[v1 + o] - y0;
      const db = lab[v2 + o] - lab[v1 + o];
      const dc = lab[v3 + o] - lab[v2 + o];
      out[o] = y0 + f[a] * da + f[b] * db + f[c] * dc;
      slopes[3 * o + a] = da * scale;
      slopes[3 * o + b] = db * scale;
      slopes[3 * o + c] = dc * scale;
    }
  }
}
