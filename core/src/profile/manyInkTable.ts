import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import type { DeviceTable } from './inkTable.ts';

/** Columns of a corner before those of the outer channels: Lab, and its steps over the three inner ones. */
const INNER = 12;

/** The table of a device of inks. */
export function deviceTable(grid: ForwardGrid): DeviceTable {
  return grid.channels === 4 && grid.nodes === undefined ? new InkTable(grid) : new ManyInkTable(grid);
}

function nodePlaces({ channels, points, nodes }: ForwardGrid): Float64Array {
  return Float64Array.from(
    { length: channels * points },
    (_, i) => nodes?.[Math.floor(i / points)][i % points] ?? (i % points) / (points - 1),
  );
}

/**
 * Evaluates a table of four inputs or more as colour engines do: linear along all but the last three, tetrahedral over
 * those. Inks that are out of use cost nothing; their slopes are not worked out.
 */
export class ManyInkTable implements DeviceTable {
  readonly lab = new Float64Array(3);
  readonly #inner: readonly [number, number, number];
  readonly #order = new Int32Array(3);
  readonly #strides: Int32Array;
  /** Where nodes lie, channel × point, and how fast a cell is crossed that begins there. */
  readonly #places: Float64Array;
  readonly #paces: Float64Array;
  readonly #last: Float64Array;
  /** The cell of each channel in which x was found last. */
  readonly #cells: Int32Array;
  /** Where x lies in its cell, by channel, and how fast it moves there. */
  readonly #share: Float64Array;
  readonly #pace: Float64Array;
  /** Channels in use but for the three inner ones. */
  #outer = new Int32Array(0);
  /** Of each corner of the outer channels: Lab, its steps over the inner channels, then those over the outer ones, × 3. */
  readonly #corners: Float64Array;
  readonly #width: number;
  readonly #jacobian: Float64Array;
  /** Whether the slopes are those of what was evaluated last. */
  #sloped = true;

  constructor(readonly grid: ForwardGrid) {
    const { channels, points } = grid;
    if (channels < 4) throw new RangeError(`a table of ${channels} inputs, expected four or more`);
    this.#inner = [channels - 3, channels - 2, channels - 1];
    this.#strides = Int32Array.from({ length: channels }, (_, c) => 3 * points ** (channels - 1 - c));
    this.#places = nodePlaces(grid);
    this.#paces = this.#places.map((place, i) => 1 / (this.#places[i + 1] - place));
    this.#cells = new Int32Array(channels);
    this.#share = new Float64Array(channels);
    this.#pace = new Float64Array(channels);
    this.#width = INNER + 3 * (channels - 3);
    this.#corners = new Float64Array(2 ** (channels - 3) * this.#width);
    this.#jacobian = new Float64Array(3 * channels);
    this.#last = new Float64Array(channels);
    this.use(() => true);
  }

  /** Inks that are evaluated from now on; the others are taken not to be printed. */
  use(inUse: (channel: number) => boolean): void {
    const outer: number[] = [];
    for (let c = 0; c < this.#inner[0]; c++) if (inUse(c)) outer.push(c);
    this.#outer = Int32Array.from(outer);
    this.#last.fill(NaN);
  }

  get jacobian(): Float64Array {
    if (!this.#sloped) this.#joinSlopes();
    return this.#jacobian;
  }

  evaluate(x: ArrayLike<number>): void {
    if (this.#isLast(x)) return;
    const outer = this.#outer;
    const count = outer.length;
    const width = this.#width;
    const corners = this.#corners;
    const strides = this.#strides;
    const base = this.#locate(x);
    this.#sortInner();
    const { lab } = this.grid;
    const order = this.#order;
    const share = this.#share;
    const fa = share[order[0]];
    const fb = share[order[1]];
    const fc = share[order[2]];
    const d1 = strides[order[0]];
    const d2 = d1 + strides[order[1]];
    const d3 = d2 + strides[order[2]];
    for (let corner = 0; corner < 1 << count; corner++) {
      let at = base;
      for (let i = 0; i < count; i++) if ((corner >> i) & 1) at += strides[outer[i]];
      const to = corner * width;
      const l0 = lab[at];
      const a0 = lab[at + 1];
      const b0 = lab[at + 2];
      const l1 = lab[at + d1];
      const a1 = lab[at + d1 + 1];
      const b1 = lab[at + d1 + 2];
      const l2 = lab[at + d2];
      const a2 = lab[at + d2 + 1];
      const b2 = lab[at + d2 + 2];
      const l3 = lab[at + d3];
      const a3 = lab[at + d3 + 1];
      const b3 = lab[at + d3 + 2];
      corners[to] = l0 + fa * (l1 - l0) + fb * (l2 - l1) + fc * (l3 - l2);
      corners[to + 1] = a0 + fa * (a1 - a0) + fb * (a2 - a1) + fc * (a3 - a2);
      corners[to + 2] = b0 + fa * (b1 - b0) + fb * (b2 - b1) + fc * (b3 - b2);
      corners[to + 3] = l1 - l0;
      corners[to + 4] = a1 - a0;
      corners[to + 5] = b1 - b0;
      corners[to + 6] = l2 - l1;
      corners[to + 7] = a2 - a1;
      corners[to + 8] = b2 - b1;
      corners[to + 9] = l3 - l2;
      corners[to + 10] = a3 - a2;
      corners[to + 11] = b3 - b2;
    }
    // One outer channel after the other: what lies on its two sides is joined, their difference is its slope.
    for (let i = count - 1; i >= 0; i--) {
      const half = 1 << i;
      const share = this.#share[outer[i]];
      const own = INNER + 3 * i;
      for (let corner = 0; corner < half; corner++) {
        const low = corner * width;
        const high = low + half * width;
        const l = corners[high] - corners[low];
        const a = corners[high + 1] - corners[low + 1];
        const b = corners[high + 2] - corners[low + 2];
        corners[low + own] = l;
        corners[low + own + 1] = a;
        corners[low + own + 2] = b;
        corners[low] += share * l;
        corners[low + 1] += share * a;
        corners[low + 2] += share * b;
      }
    }
    this.lab[0] = corners[0];
    this.lab[1] = corners[1];
    this.lab[2] = corners[2];
    this.#sloped = false;
  }

  /** Whether a place is the one before: a search looks at where it stands again and again. */
  #isLast(x: ArrayLike<number>): boolean {
    const last = this.#last;
    let same = true;
    for (let c = 0; c < last.length; c++) {
      if (x[c] === last[c]) continue;
      same = false;
      last[c] = x[c];
    }
    return same;
  }

  /** Joins the steps of the corners as their colours were joined: asked for by few of those who ask for colours. */
  #joinSlopes(): void {
    const { channels } = this.grid;
    const outer = this.#outer;
    const count = outer.length;
    const width = this.#width;
    const corners = this.#corners;
    const jacobian = this.#jacobian.fill(0);
    const end = INNER + 3 * count;
    for (let i = count - 1; i >= 0; i--) {
      const half = 1 << i;
      const share = this.#share[outer[i]];
      const own = INNER + 3 * i;
      for (let corner = 0; corner < half; corner++) {
        const low = corner * width;
        const high = low + half * width;
        for (let column = 3; column < INNER; column++)
          corners[low + column] += share * (corners[high + column] - corners[low + column]);
        for (let column = own + 3; column < end; column++)
          corners[low + column] += share * (corners[high + column] - corners[low + column]);
      }
    }
    for (let o = 0; o < 3; o++) {
      for (let i = 0; i < count; i++)
        jacobian[o * channels + outer[i]] = corners[INNER + 3 * i + o] * this.#pace[outer[i]];
      for (let i = 0; i < 3; i++) {
        const channel = this.#order[i];
        jacobian[o * channels + channel] = corners[3 + 3 * i + o] * this.#pace[channel];
      }
    }
    this.#sloped = true;
  }

  /** Finds the cell of x; returns its lowest corner. */
  #locate(x: ArrayLike<number>): number {
    const { channels, points } = this.grid;
    const places = this.#places;
    const cells = this.#cells;
    let base = 0;
    for (let c = 0; c < channels; c++) {
      const value = Math.min(1, Math.max(0, x[c]));
      const from = c * points;
      // Most colours that are asked for lie where the one before lay.
      let cell = cells[c];
      while (cell > 0 && value < places[from + cell]) cell--;
      while (cell < points - 2 && value >= places[from + cell + 1]) cell++;
      cells[c] = cell;
      const pace = this.#paces[from + cell];
      this.#pace[c] = pace;
      this.#share[c] = (value - places[from + cell]) * pace;
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
}
