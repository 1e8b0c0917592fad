import { labWeights } from '../colour/labWeights.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { solve3 } from '../numerics/solve3.ts';
import { extraShare, inkFamilies } from '../separate/extraInks.ts';
import { blackOf, inkBounds, keepLimits } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { cubeNeighbours } from './cubeNeighbours.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import type { DeviceTable } from './inkTable.ts';
import { deviceTable } from './manyInkTable.ts';
import { COLORIMETRIC_AXES } from './labAxis.ts';
import { labGridPlace, labGridValues } from './labGrid.ts';
import type { RowsToLab } from './meetModel.ts';
import { tetrahedron } from './tetrahedron.ts';

/** Colours drawn, and how many of one cell are used at most. */
const DRAWN = 120_000;
const MOST_OF_CELL = 8;
/** Share of the draws in which an ink is at nought, and at its limit: the surface is met as often as what is within. */
const AT_NOUGHT = 0.08;
const AT_LIMIT = 0.04;
/** Share of the way to each colour that its nodes go, round by round: later rounds settle what neighbours dispute. */
const ROUNDS = [0.6, 0.4, 0.2, 0.1, 0.05] as const;
/** Share of its neighbours' mean move that a node takes on after each round: what is moved stays smooth. */
const SPREAD = 0.4;
/** Black moves less readily than the other inks: it belongs to the separation. */
const BLACK_READINESS = 0.3;
/** Keeps inks from running where they hardly change the colour; weighted ΔE² for the whole range of an ink. */
const DAMPING = 20;
const MOST_STEP = 0.05;
const AT_BOUND = 1e-4;
/** A node that misses by no more before it is moved has come out; none of those may miss by more than the second. */
const MET = 0.1;
const MOST_MISS = 0.8;
/** How far a table of many inks differs from its model at most. */
const MOST_BESIDE = 1.5;
const HALVINGS = 12;
/** Where fixed nodes make up nearly all of a colour, the others are not torn about for it. */
const LEAST_SHARE = 0.05;

/**
 * Moves the nodes of a colorimetric inverse table so that what lies between them comes out right. Nodes that are exact
 * leave colours between them wrong where inks begin, end or give way to each other, and where a node beside lies out of
 * gamut. So colours that print are drawn all over the gamut, and each draws its four nodes a part of the way to where
 * it is met.
 * Neutral nodes stay; limits are kept in every node.
 * @param modelLab where a colour stands in the table from Lab; by the forward table itself where absent.
 * @param inverse node × ink on the colorimetric Lab grid of `points` a side; changed in place.
 */
export function settleInverse(
  grid: ForwardGrid,
  inverse: Float64Array,
  points: number,
  separation: Separation,
  modelLab?: RowsToLab,
): void {
  const random = createRandom(5);
  const drawn = drawColours(deviceTable(grid), points, separation, random, modelLab);
  const mover = new NodeMover(grid, inverse, points, separation);
  const order = Array.from({ length: drawn.count }, (_, i) => i);
  const before = inverse.slice();
  for (const share of ROUNDS) {
    shuffle(order, random);
    for (const i of order) mover.move(drawn, i, share);
    mover.spread(before);
  }
  mover.holdBack(before, modelLab !== undefined);
}

interface DrawnColours {
  readonly count: number;
  /** Media-relative Lab that is to print, row-major × 3. */
  readonly lab: Float64Array;
  /** The four nodes that tetrahedral interpolation mixes for each, and their shares. */
  readonly nodes: Int32Array;
  readonly shares: Float64Array;
}

function drawColours(
  table: DeviceTable,
  points: number,
  separation: Separation,
  random: Random,
  modelLab?: RowsToLab,
): DrawnColours {
  const bounds = inkBounds(separation);
  const { extra } = separation;
  const families = extra === undefined ? [[...bounds.keys()]] : inkFamilies(extra);
  const device = new Float64Array(DRAWN * bounds.length);
  const colours = new Float64Array(3 * DRAWN);
  let allowed = 0;
  for (let i = 0; i < DRAWN; i++) {
    const inks = device.subarray(bounds.length * allowed, bounds.length * (allowed + 1)).fill(0);
    let total = 0;
    for (const ink of families[i % families.length]) {
      const at = (random.uniform() - AT_NOUGHT) / (1 - AT_NOUGHT - AT_LIMIT);
      inks[ink] = bounds[ink] * Math.min(1, Math.max(0, at));
      total += inks[ink];
    }
    if (total > separation.totalInk) continue;
    table.evaluate(inks);
    if (!mayBe(separation, inks, table.lab)) continue;
    colours.set(table.lab, 3 * allowed++);
  }
  const places = colours.slice(0, 3 * allowed);
  modelLab?.(device.subarray(0, bounds.length * allowed), places);
  return fewOfEachCell(colours.subarray(0, 3 * allowed), places, points);
}

/** Colours by the cell in which they stand, no more than some of each. */
function fewOfEachCell(colours: Float64Array, places: Float64Array, points: number): DrawnColours {
  const drawn = colours.length / 3;
  const ofCell = new Uint8Array(points ** 3);
  const lab = new Float64Array(3 * drawn);
  const nodes = new Int32Array(4 * drawn);
  const shares = new Float64Array(4 * drawn);
  let count = 0;
  for (let i = 0; i < drawn; i++) {
    const corners = tetrahedron(labGridPlace(places.subarray(3 * i, 3 * i + 3), COLORIMETRIC_AXES), points);
    const cell = corners[0].node;
    if (ofCell[cell] >= MOST_OF_CELL) continue;
    ofCell[cell]++;
    lab.set(colours.subarray(3 * i, 3 * i + 3), 3 * count);
    corners.forEach(({ node, share }, corner) => {
      nodes[4 * count + corner] = node;
      shares[4 * count + corner] = share;
    });
    count++;
  }
  return { count, lab, nodes, shares };
}

/** Whether a colour that prints so may print so: its extra inks are no more than its hue allows. */
function mayBe(
  { extra, pairLimits = [] }: Separation,
  inks: ArrayLike<number>,
  lab: ArrayLike<number>,
): boolean {
  return (
    pairLimits.every(({ inks: [one, other], most }) => inks[one] + inks[other] <= most) &&
    (extra?.inks ?? []).every((own) => inks[own.ink] <= extraShare(own, lab[1], lab[2]))
  );
}

/** Draws the nodes of one colour after the other. */
class NodeMover {
  readonly #table: DeviceTable;
  readonly #count: number;
  /** Most of each ink, node × ink: what extra inks may be depends on the colour. */
  readonly #bounds: Float64Array;
  readonly #most: Float64Array;
  readonly #readiness: Float64Array;
  readonly #inks: Float64Array;
  readonly #change: Float64Array;
  readonly #weight = new Float64Array(9);
  readonly #rest = new Float64Array(3);
  /** Weighted d(L, C, h)/d(inks), row-major 3 × ink. */
  readonly #slope: Float64Array;
  readonly #normal = new Float64Array(9);
  readonly #solved = new Float64Array(3);

  constructor(
    grid: ForwardGrid,
    private readonly inverse: Float64Array,
    private readonly points: number,
    private readonly separation: Separation,
  ) {
    this.#table = deviceTable(grid);
    this.#count = grid.channels;
    this.#most = Float64Array.from(inkBounds(separation));
    this.#bounds = boundsOfNodes(separation, points);
    this.#readiness = new Float64Array(this.#count).fill(1);
    this.#readiness[blackOf(separation)] = BLACK_READINESS;
    this.#inks = new Float64Array(this.#count);
    this.#change = new Float64Array(this.#count);
    this.#slope = new Float64Array(3 * this.#count);
  }

  /** Brings a node back under all limits. */
  #keep(node: number): void {
    const n = this.#count;
    const bounds =
      this.separation.extra === undefined ? this.#most : this.#bounds.subarray(n * node, n * (node + 1));
    keepLimits(this.inverse, n * node, bounds, this.separation);
  }

  move({ lab, nodes, shares }: DrawnColours, colour: number, share: number): void {
    const { inverse } = this;
    const n = this.#count;
    const inks = this.#inks.fill(0);
    let size = 0;
    for (let corner = 4 * colour; corner < 4 * colour + 4; corner++) {
      const at = n * nodes[corner];
      for (let ink = 0; ink < n; ink++) inks[ink] += shares[corner] * inverse[at + ink];
      if (!this.#isNeutral(nodes[corner])) size += shares[corner] ** 2;
    }
    if (size < LEAST_SHARE) return;
    this.#linearise(lab, 3 * colour);
    this.#solve();
    for (let corner = 4 * colour; corner < 4 * colour + 4; corner++) {
      if (this.#isNeutral(nodes[corner])) continue;
      const part = (share * shares[corner]) / size;
      const at = n * nodes[corner];
      for (let ink = 0; ink < n; ink++)
        inverse[at + ink] += Math.min(MOST_STEP, Math.max(-MOST_STEP, part * this.#change[ink]));
      this.#keep(nodes[corner]);
    }
  }

  /** Evens out the moves since `before`. */
  spread(before: Float64Array): void {
    const { inverse, points } = this;
    const moved = inverse.map((value, i) => value - before[i]);
    const beside = new Int32Array(6);
    const n = this.#count;
    const sum = new Float64Array(n);
    for (let node = 0; node < points ** 3; node++) {
      if (this.#isNeutral(node)) continue;
      sum.fill(0);
      const near = cubeNeighbours(node, points, beside);
      for (let i = 0; i < near; i++) for (let ink = 0; ink < n; ink++) sum[ink] += moved[n * beside[i] + ink];
      for (let ink = 0; ink < n; ink++)
        inverse[n * node + ink] += SPREAD * (sum[ink] / near - moved[n * node + ink]);
      this.#keep(node);
    }
  }

  /**
   * A node that came out by itself is not given up for those around it: it goes back as far as it must.
   * @param beside nodes were aimed beside the table, by what it differs from the model: they came out where they are.
   */
  holdBack(before: Float64Array, beside: boolean): void {
    const { inverse, points } = this;
    const n = this.#count;
    const asked = labGridValues(points, COLORIMETRIC_AXES);
    for (let node = 0; node < points ** 3; node++) {
      const own = inverse.subarray(n * node, n * (node + 1));
      const first = before.subarray(n * node, n * (node + 1));
      if (this.#miss(first, asked, 3 * node) > (beside ? MOST_BESIDE : MET)) continue;
      if (beside) asked.set(this.#table.lab, 3 * node);
      for (let step = 0; step < HALVINGS && this.#miss(own, asked, 3 * node) > MOST_MISS; step++)
        for (let ink = 0; ink < n; ink++) own[ink] = (own[ink] + first[ink]) / 2;
    }
  }

  /** ΔE00, to first order, between what inks print and what is asked. */
  #miss(inks: Float64Array, asked: Float64Array, at: number): number {
    this.#inks.set(inks);
    this.#linearise(asked, at);
    return Math.hypot(this.#rest[0], this.#rest[1], this.#rest[2]);
  }

  #isNeutral(node: number): boolean {
    const middle = (this.points - 1) / 2;
    return node % this.points === middle && Math.floor(node / this.points) % this.points === middle;
  }

  /** What is missing to the wanted colour, and how inks change it, both weighted. */
  #linearise(lab: Float64Array, at: number): void {
    const table = this.#table;
    const n = this.#count;
    const w = this.#weight;
    table.evaluate(this.#inks);
    labWeights(lab[at], lab[at + 1], lab[at + 2], 1, w);
    const d0 = lab[at] - table.lab[0];
    const d1 = lab[at + 1] - table.lab[1];
    const d2 = lab[at + 2] - table.lab[2];
    const j = table.jacobian;
    for (let p = 0; p < 3; p++) {
      this.#rest[p] = w[3 * p] * d0 + w[3 * p + 1] * d1 + w[3 * p + 2] * d2;
      for (let ink = 0; ink < n; ink++)
        this.#slope[n * p + ink] =
          w[3 * p] * j[ink] + w[3 * p + 1] * j[n + ink] + w[3 * p + 2] * j[2 * n + ink];
    }
  }

  /** The least change of inks that brings the colour near; inks that are at a bound and would leave it stay there. */
  #solve(): void {
    const s = this.#slope;
    const n = this.#count;
    const ready = this.#readiness;
    const y = this.#solved;
    const change = this.#change;
    let held = 0;
    for (let again = true; again;) {
      again = false;
      for (let p = 0; p < 3; p++)
        for (let q = 0; q < 3; q++) {
          let sum = p === q ? DAMPING : 0;
          for (let ink = 0; ink < n; ink++)
            if (((held >> ink) & 1) === 0) sum += ready[ink] * s[n * p + ink] * s[n * q + ink];
          this.#normal[3 * p + q] = sum;
        }
      if (!solve3(this.#normal, this.#rest, y)) {
        change.fill(0);
        return;
      }
      for (let ink = 0; ink < n; ink++) {
        const free = ((held >> ink) & 1) === 0;
        change[ink] = free ? ready[ink] * (s[ink] * y[0] + s[n + ink] * y[1] + s[2 * n + ink] * y[2]) : 0;
        const leaves =
          (this.#inks[ink] <= AT_BOUND && change[ink] < 0) ||
          (this.#inks[ink] >= this.#most[ink] - AT_BOUND && change[ink] > 0);
        if (free && leaves) {
          held |= 1 << ink;
          again = true;
        }
      }
    }
  }
}

/** Most of each ink at each node, node × ink; nothing for devices without extra inks, where all nodes have the same. */
function boundsOfNodes(separation: Separation, points: number): Float64Array {
  const { extra } = separation;
  if (extra === undefined) return new Float64Array(0);
  const bounds = inkBounds(separation);
  const n = bounds.length;
  const lab = labGridValues(points, COLORIMETRIC_AXES);
  const out = new Float64Array(points ** 3 * n);
  for (let node = 0; node < points ** 3; node++) {
    out.set(bounds, n * node);
    for (const own of extra.inks)
      out[n * node + own.ink] *= extraShare(own, lab[3 * node + 1], lab[3 * node + 2]);
  }
  return out;
}
