import type { Separation } from '../separate/separation.ts';
import { inkBounds } from '../separate/separation.ts';
import type { ForwardGrid } from './forwardGrid.ts';

/** Edge of a bucket, ΔE*ab. */
const BUCKET = 5;
const LOW = [0, -128, -128] as const;
const SIZE = [21, 52, 52] as const;

/**
 * Which cells of a table of four inks can hold a colour. Within a cell a colour lies between those of its corners, so a
 * colour that lies in no cell's box does not print; whether it prints in a cell whose box holds it is to be looked for.
 */
export class CellIndex {
  /** Lower corner of each cell, 0..1, row-major × 4, and half an edge. */
  readonly corners: Float64Array;
  readonly half: number;
  readonly #boxes: Float64Array;
  readonly #from: Int32Array;
  readonly #cells: Int32Array;

  constructor(grid: ForwardGrid, separation: Separation) {
    const n = grid.points;
    const edge = 1 / (n - 1);
    this.half = edge / 2;
    const bounds = inkBounds(separation);
    const strides = [n * n * n, n * n, n, 1];
    const corners: number[] = [];
    const boxes: number[] = [];
    for (let node = 0; node < n ** 4; node++) {
      const at = strides.map((stride) => Math.floor(node / stride) % n);
      if (at.some((place) => place === n - 1)) continue;
      const low = at.map((place) => place * edge);
      if (low.some((value, ink) => value > bounds[ink] + 1e-9)) continue;
      if (low.reduce((sum, value) => sum + value, 0) > separation.totalInk + 1e-9) continue;
      corners.push(...low);
      boxes.push(...boxOf(grid, node, strides));
    }
    this.corners = Float64Array.from(corners);
    this.#boxes = Float64Array.from(boxes);
    [this.#from, this.#cells] = buckets(this.#boxes);
  }

  /** Cells that can hold a colour, by their places in `corners`. */
  around(l: number, a: number, b: number): number[] {
    const bucket = bucketOf([l, a, b]);
    if (bucket === undefined) return [];
    const found: number[] = [];
    for (let i = this.#from[bucket]; i < this.#from[bucket + 1]; i++) {
      const cell = this.#cells[i];
      const at = 6 * cell;
      const box = this.#boxes;
      const holds =
        l >= box[at] &&
        l <= box[at + 3] &&
        a >= box[at + 1] &&
        a <= box[at + 4] &&
        b >= box[at + 2] &&
        b <= box[at + 5];
      if (holds) found.push(cell);
    }
    return found;
  }
}

/** Least and largest L*, a*, b* of the sixteen corners of a cell. */
function boxOf({ lab }: ForwardGrid, node: number, strides: readonly number[]): number[] {
  const box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (let bits = 0; bits < 16; bits++) {
    let corner = node;
    for (let ink = 0; ink < 4; ink++) if ((bits >> ink) & 1) corner += strides[ink];
    for (let axis = 0; axis < 3; axis++) {
      const value = lab[3 * corner + axis];
      box[axis] = Math.min(box[axis], value);
      box[3 + axis] = Math.max(box[3 + axis], value);
    }
  }
  return box;
}

function bucketOf(lab: readonly number[]): number | undefined {
  let bucket = 0;
  for (let axis = 0; axis < 3; axis++) {
    const place = Math.floor((lab[axis] - LOW[axis]) / BUCKET);
    if (!(place >= 0 && place < SIZE[axis])) return undefined;
    bucket = bucket * SIZE[axis] + place;
  }
  return bucket;
}

/** Cells of each bucket that their boxes touch: where those of a bucket begin, and all one after another. */
function buckets(boxes: Float64Array): [Int32Array, Int32Array] {
  const from = new Int32Array(SIZE[0] * SIZE[1] * SIZE[2] + 1);
  const cells = boxes.length / 6;
  const eachOf = (cell: number, visit: (bucket: number) => void): void => {
    const range = [0, 1, 2].map((axis) => {
      const place = (value: number): number =>
        Math.min(SIZE[axis] - 1, Math.max(0, Math.floor((value - LOW[axis]) / BUCKET)));
      return [place(boxes[6 * cell + axis]), place(boxes[6 * cell + 3 + axis])] as const;
    });
    for (let l = range[0][0]; l <= range[0][1]; l++)
      for (let a = range[1][0]; a <= range[1][1]; a++)
        for (let b = range[2][0]; b <= range[2][1]; b++) visit((l * SIZE[1] + a) * SIZE[2] + b);
  };
  for (let cell = 0; cell < cells; cell++) eachOf(cell, (bucket) => from[bucket + 1]++);
  for (let bucket = 0; bucket + 1 < from.length; bucket++) from[bucket + 1] += from[bucket];
  const next = from.slice();
  const list = new Int32Array(from[from.length - 1]);
  for (let cell = 0; cell < cells; cell++) eachOf(cell, (bucket) => (list[next[bucket]++] = cell));
  return [from, list];
}

const known = new WeakMap<ForwardGrid, { readonly separation: Separation; readonly index: CellIndex }>();

/** The index of a table under a separation's limits, made the first time it is asked for. */
export function cellIndexOf(grid: ForwardGrid, separation: Separation): CellIndex {
  const kept = known.get(grid);
  if (kept?.separation === separation) return kept.index;
  const index = new CellIndex(grid, separation);
  known.set(grid, { separation, index });
  return index;
}
