import { labFunctionSlope } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { solvePositiveDefinite } from '../numerics/cholesky.ts';
import { mean } from '../numerics/statistics.ts';
import { mixtureSlope, mixtureWeights } from './mixture.ts';
import { addSolidPrior, LEAST_ROOT, printedSolids } from './solidPrior.ts';

/** How freely tone curves bend: their basis functions, and what a bend costs. */
export interface ToneFreedom {
  readonly bends: number;
  readonly penalty: number;
}

const SETTLED = 1e-6;
const SOLID_PENALTY = 1e-7;
/** Of more inks than this not every overprint is printed: those that are not follow from the others. */
const MOST_KNOWN = 4;
const SOLID_PRIOR = 2e-5;
const MOST_HALVINGS = 6;

interface BandData {
  readonly device: Float64Array;
  readonly inks: number;
  readonly xyz: Float64Array;
  readonly axis: number;
  readonly counts: Float64Array;
  /** Basis functions of the tone curves at each value of `device`. */
  readonly basis: Float64Array;
  readonly nu: number;
  readonly freedom: ToneFreedom;
}

/** Squares of the slopes of fit space by the roots of a band, their mean 1. */
function slopeWeights(roots: Float64Array, nu: number, white: number): Float64Array {
  const out = roots.map((root) => (labFunctionSlope(root ** nu / white) * nu * root ** (nu - 1)) ** 2);
  const middle = mean(out);
  return out.map((weight) => weight / middle);
}

/** The fit of one of X, Y, Z, step by step. */
export class BandFit {
  readonly solids: Float64Array;
  readonly tone: Float64Array;
  readonly #target: Float64Array;
  readonly #seen: Float64Array;
  readonly #scale: number;
  readonly #weightSum: number;
  readonly #many: boolean;
  readonly #areas: Float64Array;
  readonly #weights: Float64Array;
  readonly #folded: Float64Array;
  readonly #line: Float64Array;
  /** Unknowns that a row touches: of the free bends an ink's value touches four at most, and a solid ink leaves half of the solids out. */
  readonly #touched: Int32Array;
  #reached: { readonly cost: number; readonly solids: Float64Array; readonly tone: Float64Array } | undefined;
  #halvings = 0;
  #step: number;
  #settled = false;

  constructor(readonly data: BandData) {
    const { device, inks, xyz, axis, counts, nu, freedom } = data;
    const size = 1 << inks;
    const tones = inks * freedom.bends;
    this.#target = Float64Array.from({ length: counts.length }, (_, row) =>
      Math.pow(Math.max(1e-3, xyz[3 * row + axis]), 1 / nu),
    );
    this.#seen = slopeWeights(this.#target, nu, WHITE_D50_MEASURED[axis]);
    this.#scale = this.#target.reduce((most, root) => Math.max(most, root), 0);
    this.#weightSum = counts.reduce((sum, count) => sum + count, 0);
    this.#many = inks > MOST_KNOWN;
    this.solids = new Float64Array(size);
    this.tone = new Float64Array(tones);
    this.#areas = new Float64Array(inks);
    this.#weights = new Float64Array(size);
    this.#folded = new Float64Array(size);
    this.#line = new Float64Array(size + tones);
    this.#touched = new Int32Array(size + tones);
    // The first step finds the solids alone, with straight tone curves; of many inks they are told by what was printed.
    this.#step = this.#many ? 1 : 0;
    if (this.#many) this.solids.set(printedSolids(device, this.#target, inks));
  }

  /** Goes on to a step, the last one taken included. */
  run(to: number): void {
    while (this.#step <= to && !this.#settled) this.#take();
  }

  #take(): void {
    const { solids, tone } = this;
    const { inks, freedom } = this.data;
    const { bends, penalty } = freedom;
    const size = solids.length;
    const width = this.#step === 0 ? size : size + tone.length;
    const normal = new Float64Array(width * width);
    const right = new Float64Array(width);
    const cost = this.#addRows(normal, right, width);
    if (this.#many && !this.#nearer(cost)) return;
    for (let p = 0; p < size; p++) normal[p * width + p] += SOLID_PENALTY * this.#weightSum;
    if (this.#many) addSolidPrior(normal, right, solids, inks, width, SOLID_PRIOR * this.#weightSum);
    if (width > size)
      addBendPenalty(normal, right, tone, size, bends, penalty * this.#weightSum * this.#scale * this.#scale);
    for (let p = 0; p < width; p++)
      for (let q = p + 1; q < width; q++) normal[p * width + q] = normal[q * width + p];
    const change = solvePositiveDefinite(normal, width, right);
    for (let p = 0; p < size; p++)
      solids[p] = this.#many ? Math.max(LEAST_ROOT, solids[p] + change[p]) : solids[p] + change[p];
    for (let k = 0; k < width - size; k++) tone[k] += change[size + k];
    this.#settled = this.#step > 0 && settled(change, size, this.#scale);
    this.#step++;
  }

  /** Whether the last step made it better; one that made it worse was too long, and half of the way is gone back. */
  #nearer(cost: number): boolean {
    const { solids, tone } = this;
    if (this.#reached !== undefined && cost > this.#reached.cost && this.#halvings < MOST_HALVINGS) {
      const { solids: before, tone: curves } = this.#reached;
      for (let p = 0; p < solids.length; p++) solids[p] = (solids[p] + before[p]) / 2;
      for (let k = 0; k < tone.length; k++) tone[k] = (tone[k] + curves[k]) / 2;
      this.#halvings++;
      return false;
    }
    this.#halvings = 0;
    this.#reached = { cost, solids: solids.slice(), tone: tone.slice() };
    return true;
  }

  /** The lower half of the normal equations where it stands; returns the weighted sum of squares. */
  #addRows(normal: Float64Array, right: Float64Array, width: number): number {
    const { solids, tone } = this;
    const { device, inks, counts, basis, freedom } = this.data;
    const { bends } = freedom;
    const size = solids.length;
    const areas = this.#areas;
    const weights = this.#weights;
    const line = this.#line;
    const touched = this.#touched;
    let cost = 0;
    for (let row = 0; row < counts.length; row++) {
      areasOf(device, basis, tone, row, bends, areas);
      mixtureWeights(areas, inks, weights);
      let value = 0;
      for (let p = 0; p < size; p++) {
        line[p] = weights[p];
        value += weights[p] * solids[p];
      }
      if (width > size)
        for (let ink = 0; ink < inks; ink++) {
          const slope = mixtureSlope(areas, inks, ink, solids, this.#folded);
          for (let k = 0; k < bends; k++)
            line[size + ink * bends + k] = slope * basis[(row * inks + ink) * bends + k];
        }
      const rest = this.#target[row] - value;
      const weight = counts[row] * this.#seen[row];
      cost += weight * rest * rest;
      let terms = 0;
      for (let p = 0; p < width; p++) if (line[p] !== 0) touched[terms++] = p;
      for (let i = 0; i < terms; i++) {
        const p = touched[i];
        const lp = weight * line[p];
        right[p] += lp * rest;
        const at = p * width;
        for (let k = 0; k <= i; k++) normal[at + touched[k]] += lp * line[touched[k]];
      }
    }
    return cost;
  }
}

/** Whether a step moved no root by a millionth of the paper's and no area by a millionth of the whole. */
function settled(change: Float64Array, size: number, scale: number): boolean {
  return change.every((value, k) => Math.abs(value) < (k < size ? SETTLED * scale : SETTLED));
}

function areasOf(
  device: Float64Array,
  basis: Float64Array,
  tone: Float64Array,
  row: number,
  bends: number,
  out: Float64Array,
): void {
  for (let ink = 0; ink < out.length; ink++) {
    const at = row * out.length + ink;
    let area = device[at];
    for (let k = 0; k < bends; k++) area += tone[ink * bends + k] * basis[at * bends + k];
    out[ink] = area;
  }
}

/** Penalty on second differences of each ink's coefficients, zero beyond both ends. */
function addBendPenalty(
  normal: Float64Array,
  right: Float64Array,
  tone: Float64Array,
  size: number,
  bends: number,
  penalty: number,
): void {
  const width = size + tone.length;
  for (let ink = 0; ink * bends < tone.length; ink++) {
    const at = (k: number): number | undefined => (k < 0 || k >= bends ? undefined : ink * bends + k);
    for (let k = 0; k < bends; k++) {
      const terms = (
        [
          [k - 1, 1],
          [k, -2],
          [k + 1, 1],
        ] as const
      ).flatMap(([index, factor]) => {
        const own = at(index);
        return own === undefined ? [] : [{ own, factor }];
      });
      const bend = terms.reduce((sum, { own, factor }) => sum + factor * tone[own], 0);
      for (const a of terms) {
        right[size + a.own] -= penalty * a.factor * bend;
        for (const b of terms)
          if (b.own <= a.own) normal[(size + a.own) * width + size + b.own] += penalty * a.factor * b.factor;
      }
    }
  }
}
