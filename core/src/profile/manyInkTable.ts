import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import type { DeviceTable } from './inkTable.ts';

/** Columns of a corner before those of the outer channels: Lab, and its steps over the three inner ones. */
const INNER = 12;

/** The table of a device of inks. */
export function deviceTable(grid: ForwardGrid): DeviceTable {
  return grid.channels === 4 && grid.nodes === undefined ? new InkTable(grid) : new ManyInkTable(grid);
}

/**
 * Evaluates a table of four inputs or more as colour engines do: linear along all but the last three, tetrahedral over
 * those. Inks that are out of use cost nothing; their slopes are not worked out.
 */
export class ManyInkTable implements DeviceTable {
  readonly lab: Float64Array;
  readonly jacobian: Float64Array;
  readonly #inner: readonly [number, number, number];
  readonly #order = new Int32Array(3);
  readonly #strides: Float64Array;
  /** Where x lies in its cell, by channel, and how fast it moves there. */
  readonly #share: Float64Array;
  readonly #pace: Float64Array;
  /** Channels in use but for the three inner ones. */
  #outer: number[] = [];
  /** Of each corner of the outer channels: Lab, its steps over the inner channels, then those over the outer ones, × 3. */
  readonly #corners: Float64Array;
  readonly #width: number;

  constructor(readonly grid: ForwardGrid) {
    const { channels, points } = grid;
    if (channels < 4) throw new RangeError(`a table of ${channels} inputs, expected four or more`);
    this.#inner = [channels - 3, channels - 2, channels - 1];
    this.#strides = Float64Array.from({ length: channels }, (_, c) => 3 * points ** (channels - 1 - c));
    this.#share = new Float64Array(channels);
    this.#pace = new Float64Array(channels);
    this.#width = INNER + 3 * (channels - 3);
    this.#corners = new Float64Array(2 ** (channels - 3) * this.#width);
    this.lab = new Float64Array(3);
    this.jacobian = new Float64Array(3 * channels);
    this.use(() => true);
  }

  /** Inks that are evaluated from now on; the others are taken not to be printed. */
  use(inUse: (channel: number) => boolean): void {
    this.#outer = [];
    for (let c = 0; c < this.#inner[0]; c++) if (inUse(c)) this.#outer.push(c);
  }

  evaluate(x: ArrayLike<number>): void {
    const { channels } = this.grid;
    const { lab, jacobian } = this;
    const outer = this.#outer;
    const count = outer.length;
    const width = this.#width;
    const corners = this.#corners;
    const shares = this.#share;
    const strides = this.#strides;
    const base = this.#locate(x);
    this.#sortInner();
    for (let corner = 0; corner < 1 << count; corner++) {
      let at = base;
      for (let i = 0; i < count; i++) if ((corner >> i) & 1) at += strides[outer[i]];
      this.#tetrahedron(at, corner * width);
    }
    // One outer channel after the other: what lies on its two sides is joined, their difference is its slope.
    for (let i = count - 1; i >= 0; i--) {
      const half = 1 << i;
      const share = shares[outer[i]];
      const own = INNER + 3 * i;
      const end = INNER + 3 * count;
      for (let corner = 0; corner < half; corner++) {
        const low = corner * width;
        const high = low + half * width;
        corners[low + own] = corners[high] - corners[low];
        corners[low + own + 1] = corners[high + 1] - corners[low + 1];
        corners[low + own + 2] = corners[high + 2] - corners[low + 2];
        for (let column = 0; column < INNER; column++)
          corners[low + column] += share * (corners[high + column] - corners[low + column]);
        for (let column = own + 3; column < end; column++)
          corners[low + column] += share * (corners[high + column] - corners[low + column]);
      }
    }
    jacobian.fill(0);
    for (let o = 0; o < 3; o++) {
      lab[o] = corners[o];
      for (let i = 0; i < count; i++)
        jacobian[o * channels + outer[i]] = corners[INNER + 3 * i + o] * this.#pace[outer[i]];
      for (let i = 0; i < 3; i++) {
        const channel = this.#order[i];
        jacobian[o * channels + channel] = corners[3 + 3 * i + o] * this.#pace[channel];
      }
    }
  }

  /** Finds the cell of x; returns its lowest corner. */
  #locate(x: ArrayLike<number>): number {
    const { channels, points, nodes } = this.grid;
    let base = 0;
    for (let c = 0; c < channels; c++) {
      const value = Math.min(1, Math.max(0, x[c]));
      let cell = 0;
      if (nodes === undefined) {
        cell = Math.min(Math.floor(value * (points - 1)), points - 2);
        this.#pace[c] = points - 1;
        this.#share[c] = value * (points - 1) - cell;
      } else {
        const places = nodes[c];
        while (cell < points - 2 && value >= places[cell + 1]) cell++;
        this.#pace[c] = 1 / (places[cell + 1] - places[cell]);
        this.#share[c] = (value - places[cell]) * this.#pace[c];
      }
      base += cell * this.#strides[c];
    }
    return base;
  }

  /** The three inner channels by falling share. */
  #sortInner(): void {
    const share = this.#share;
    const order = this.#order;
    order.set(this.#inner);
    this.#putFirst(share, 0, 1);
    this.#putFirst(share, 1, 2);
    this.#putFirst(share, 0, 1);
  }

  /** Swaps two of the order where the second has the larger share. */
  #putFirst(share: Float64Array, one: number, other: number): void {
    const order = this.#order;
    const first = order[one];
    if (share[order[other]] <= share[first]) return;
    order[one] = order[other];
    order[other] = first;
  }

  /** Lab and its steps over the three inner channels, in their order, from a corner on. */
  #tetrahedron(at: number, to: number): void {
    const { lab } = this.grid;
    const order = this.#order;
    const strides = this.#strides;
    const corners = this.#corners;
    const v1 = at + strides[order[0]];
    const v2 = v1 + strides[order[1]];
    const v3 = v2 + strides[order[2]];
    const fa = this.#share[order[0]];
    const fb = this.#share[order[1]];
    const fc = this.#share[order[2]];
    for (let o = 0; o < 3; o++) {
      const y0 = lab[at + o];
      const y1 = lab[v1 + o];
      const y2 = lab[v2 + o];
      const da = y1 - y0;
      const db = y2 - y1;
      const dc = lab[v3 + o] - y2;
      corners[to + o] = y0 + fa * da + fb * db + fc * dc;
      corners[to + 3 + o] = da;
      corners[to + 6 + o] = db;
      corners[to + 9 + o] = dc;
    }
  }
}
