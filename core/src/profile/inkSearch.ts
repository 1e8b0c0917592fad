import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { labWeights } from '../colour/labWeights.ts';
import { blackFor, inkBounds, keepLimits } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { cellIndexOf } from './cellIndex.ts';
import type { CellIndex } from './cellIndex.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';

/** How much heavier hue weighs than chroma where a colour is out of gamut. */
const HUE_WEIGHT = 2.4;
/** Pull of black towards its curve: weighted ΔE for the whole range of black. */
const BLACK_PULL = 1.5;
/** Push back under the limit of total ink: weighted ΔE for 100 % too much. */
const TOTAL_PUSH = 120;
const STEPS = 30;
const LEAST_GAIN = 1e-5;
const START_CMY = [0, 0.2, 0.4, 0.6, 0.8, 1];
const START_K = [0, 0.25, 0.5, 0.75, 1];
/** A colour within this weighted distance is in gamut: black is then held and C, M, Y are polished. */
const IN_GAMUT = 0.6;
/** Within this weighted distance a colour is met. */
const MET = 0.02;
/** How much more a colour counts than black's curve, where two places are compared. */
const COLOUR_FIRST = 20;
/** Steps within a cell, and the weighted distance within which a colour is found there. */
const CELL_STEPS = 6;
const FOUND = 0.1;

/** Levenberg-Marquardt in four bounded variables, black pulled to its curve, total ink pushed under its limit. */
export class InkSearch {
  readonly x = new Float64Array(4);
  readonly table: InkTable;
  readonly #bounds: readonly number[];
  readonly #starts: Float64Array;
  /** Their colours, by rising L*. */
  readonly #startLab: Float64Array;
  readonly #target = new Float64Array(3);
  readonly #weight = new Float64Array(9);
  readonly #rest = new Float64Array(3);
  readonly #weighted = new Float64Array(12);
  readonly #normal = new Float64Array(16);
  readonly #gradient = new Float64Array(4);
  readonly #damped = new Float64Array(16);
  readonly #step = new Float64Array(4);
  readonly #trial = new Float64Array(4);
  readonly #none = new Float64Array(4);
  readonly #least = new Float64Array(4);
  readonly #most = new Float64Array(4);
  #black = 0;
  #pull = BLACK_PULL;
  #held = false;

  constructor(
    grid: ForwardGrid,
    private readonly separation: Separation,
    private readonly darkest: number,
  ) {
    this.table = new InkTable(grid);
    this.#bounds = inkBounds(separation);
    const starts: number[] = [];
    for (const c of START_CMY)
      for (const m of START_CMY)
        for (const y of START_CMY)
          for (const k of START_K)
            if (c + m + y + k <= separation.totalInk + 1e-9)
              starts.push(...[c, m, y, k].map((value, i) => Math.min(value, this.#bounds[i])));
    const rows = Array.from({ length: starts.length / 4 }, (_, i) => {
      const device = starts.slice(4 * i, 4 * i + 4);
      this.table.evaluate(device);
      return { device, lab: [...this.table.lab] };
    }).sort((one, other) => one.lab[0] - other.lab[0]);
    this.#starts = Float64Array.from(rows.flatMap(({ device }) => device));
    this.#startLab = Float64Array.from(rows.flatMap(({ lab }) => lab));
  }

  /** ΔE*ab between the colour of `x` and the target. */
  distance(x: ArrayLike<number>): number {
    this.table.evaluate(x);
    const [l, a, b] = this.table.lab;
    return Math.hypot(l - this.#target[0], a - this.#target[1], b - this.#target[2]);
  }

  /** The colour that is looked for. */
  aim(l: number, a: number, b: number): void {
    this.#target.set([l, a, b]);
    labWeights(l, a, b, HUE_WEIGHT, this.#weight);
    this.#black = Math.min(this.#bounds[3], blackFor(this.separation, this.darkest, l, Math.hypot(a, b)));
  }

  /** What two places are compared by: the colour first, then how far black is from its curve. */
  score(x: Float64Array): number {
    const colour = this.colour(x);
    const pull = BLACK_PULL * (x[3] - this.#black);
    return COLOUR_FIRST * colour * colour + pull * pull;
  }

  /** Looks from given inks only. */
  attempt(start: Float64Array): void {
    this.x.set(start);
    this.#from(start);
  }

  /** Looks from what was found last, and from the nearest start. */
  solve(): void {
    this.#from(this.#nearestStart());
  }

  /** Looks for C, M, Y beside a given black, from given inks. */
  besideBlack(black: number, start: Float64Array): void {
    this.x.set(start);
    this.x[3] = black;
    this.#held = true;
    this.#pull = 0;
    this.#descend();
    this.#project();
  }

  #from(start: Float64Array): void {
    // Black on its curve, where C, M, Y can meet the colour with it.
    this.#held = true;
    this.#pull = 0;
    this.x[3] = this.#black;
    const before = this.#cost(this.x);
    this.#trial.set(start);
    this.#trial[3] = this.#black;
    if (this.#cost(this.#trial) < before) this.x.set(this.#trial);
    this.#descend();
    this.#project();
    if (Math.sqrt(this.#cost(this.x)) < MET) return;
    // Else black gives way, as little as it can; then it is held where it came to lie.
    this.#held = false;
    this.#pull = BLACK_PULL;
    const here = this.#cost(this.x);
    if (this.#cost(start) < here) this.x.set(start);
    this.#descend();
    this.#project();
    this.#held = true;
    this.#pull = 0;
    if (Math.sqrt(this.#cost(this.x)) < IN_GAMUT) {
      this.#descend();
      this.#project();
    }
  }

  /** Weighted distance of the colour of `x` from the target. */
  colour(x: Float64Array): number {
    this.table.evaluate(x);
    this.#weigh();
    const [r0, r1, r2] = this.#rest;
    return Math.sqrt(r0 * r0 + r1 * r1 + r2 * r2);
  }

  /**
   * Looks in every cell that can hold the target, those near black's curve first, until one does. Where none does,
   * the colour is taken not to print by this table.
   */
  searchCells(): boolean {
    const index = cellIndexOf(this.table.grid, this.separation);
    const { corners, half } = index;
    const [l, a, b] = this.#target;
    const near = index.around(l, a, b).map((cell) => ({
      cell,
      apart: Math.max(0, Math.abs(corners[4 * cell + 3] + half - this.#black) - half),
    }));
    near.sort((one, other) => one.apart - other.apart);
    this.#held = false;
    this.#pull = 0;
    if (!near.some(({ cell }) => this.#withinCell(index, 4 * cell))) return false;
    this.#held = true;
    this.#descend();
    this.#project();
    return true;
  }

  /** Steps towards the target that stay within one cell; true where it is met there. */
  #withinCell({ corners, half }: CellIndex, at: number): boolean {
    for (let ink = 0; ink < 4; ink++) {
      this.#least[ink] = corners[at + ink];
      this.#most[ink] = Math.min(this.#bounds[ink], corners[at + ink] + 2 * half);
      this.x[ink] = (this.#least[ink] + this.#most[ink]) / 2;
    }
    let cost = this.#cost(this.x);
    for (let step = 0; step < CELL_STEPS && cost > MET * MET; step++) {
      this.#linearise();
      if (!this.#trialStep(1e-6, this.#least, this.#most)) break;
      const next = this.#cost(this.#trial);
      if (!(next < 0.95 * cost)) break;
      this.x.set(this.#trial);
      cost = next;
    }
    if (cost > FOUND * FOUND) return false;
    this.#project();
    return this.#cost(this.x) <= FOUND * FOUND;
  }

  #nearestStart(): Float64Array {
    const [l, a, b] = this.#target;
    const lab = this.#startLab;
    const count = lab.length / 3;
    let middle = 0;
    for (let high = count; middle < high;) {
      const half = (middle + high) >> 1;
      if (lab[3 * half] < l) middle = half + 1;
      else high = half;
    }
    let best = Infinity;
    let at = 0;
    // From the target's own lightness to both sides, until lightness alone is farther than the best.
    for (let side = -1; side <= 1; side += 2)
      for (let i = side < 0 ? middle - 1 : middle; i >= 0 && i < count; i += side) {
        const dl = lab[3 * i] - l;
        if (dl * dl >= best) break;
        const da = lab[3 * i + 1] - a;
        const db = lab[3 * i + 2] - b;
        const dk = 12 * (this.#starts[4 * i + 3] - this.#black);
        const d = dl * dl + 0.5 * (da * da + db * db) + dk * dk;
        if (d < best) {
          best = d;
          at = 4 * i;
        }
      }
    return this.#starts.subarray(at, at + 4);
  }

  #over(x: Float64Array): number {
    return Math.max(0, x[0] + x[1] + x[2] + x[3] - this.separation.totalInk);
  }

  #cost(x: Float64Array): number {
    this.table.evaluate(x);
    this.#weigh();
    const [r0, r1, r2] = this.#rest;
    const pull = this.#pull * (x[3] - this.#black);
    const push = TOTAL_PUSH * this.#over(x);
    return r0 * r0 + r1 * r1 + r2 * r2 + pull * pull + push * push;
  }

  #weigh(): void {
    const w = this.#weight;
    const lab = this.table.lab;
    const d0 = lab[0] - this.#target[0];
    const d1 = lab[1] - this.#target[1];
    const d2 = lab[2] - this.#target[2];
    this.#rest[0] = w[0] * d0;
    this.#rest[1] = w[4] * d1 + w[5] * d2;
    this.#rest[2] = w[7] * d1 + w[8] * d2;
  }

  #descend(): void {
    let cost = this.#cost(this.x);
    let damping = 1e-3;
    for (let step = 0; step < STEPS && cost > 1e-10; step++) {
      this.#linearise();
      let improved = false;
      for (let attempt = 0; attempt < 7; attempt++) {
        if (!this.#trialStep(damping)) {
          damping *= 10;
          continue;
        }
        const next = this.#cost(this.#trial);
        if (next < cost) {
          improved = cost - next > LEAST_GAIN * cost + 1e-12;
          this.x.set(this.#trial);
          cost = next;
          damping = Math.max(1e-9, damping * 0.2);
          break;
        }
        damping *= 8;
      }
      if (!improved) break;
    }
  }

  #linearise(): void {
    this.table.evaluate(this.x);
    this.#weigh();
    const w = this.#weight;
    const j = this.table.jacobian;
    const wj = this.#weighted;
    for (let c = 0; c < 4; c++) {
      wj[c] = w[0] * j[c];
      wj[4 + c] = w[4] * j[4 + c] + w[5] * j[8 + c];
      wj[8 + c] = w[7] * j[4 + c] + w[8] * j[8 + c];
    }
    const over = this.#over(this.x);
    const push = over > 0 ? TOTAL_PUSH * TOTAL_PUSH : 0;
    for (let i = 0; i < 4; i++) {
      this.#gradient[i] =
        -(wj[i] * this.#rest[0] + wj[4 + i] * this.#rest[1] + wj[8 + i] * this.#rest[2]) - push * over;
      for (let k = 0; k < 4; k++)
        this.#normal[4 * i + k] = wj[i] * wj[k] + wj[4 + i] * wj[4 + k] + wj[8 + i] * wj[8 + k] + push;
    }
    const pull = this.#pull * this.#pull;
    this.#gradient[3] -= pull * (this.x[3] - this.#black);
    this.#normal[15] += pull;
  }

  #trialStep(
    damping: number,
    least: ArrayLike<number> = this.#none,
    most: ArrayLike<number> = this.#bounds,
  ): boolean {
    const a = this.#damped;
    const s = this.#step;
    a.set(this.#normal);
    s.set(this.#gradient);
    for (let i = 0; i < 4; i++) {
      const frozen =
        (this.#held && i === 3) || (this.x[i] <= least[i] && s[i] < 0) || (this.x[i] >= most[i] && s[i] > 0);
      if (frozen) {
        for (let k = 0; k < 4; k++) {
          a[4 * i + k] = 0;
          a[4 * k + i] = 0;
        }
        a[5 * i] = 1;
        s[i] = 0;
      } else a[5 * i] += damping * a[5 * i] + 1e-9;
    }
    if (!choleskyFactor(a, 4)) return false;
    choleskySolve(a, 4, s);
    for (let i = 0; i < 4; i++) this.#trial[i] = Math.min(most[i], Math.max(least[i], this.x[i] + s[i]));
    return true;
  }

  /** Exactly under the limit of total ink. */
  #project(): void {
    keepLimits(this.x, 0, this.#bounds, this.separation.totalInk);
  }
}
