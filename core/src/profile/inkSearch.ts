import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { labWeights } from '../colour/labWeights.ts';
import { extraShare } from '../separate/extraInks.ts';
import { blackFor, blackOf, inkBounds, keepLimits } from '../separate/separation.ts';
import type { PairLimit, Separation } from '../separate/separation.ts';
import { cellIndexOf } from './cellIndex.ts';
import type { CellIndex } from './cellIndex.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { inkStarts } from './inkStarts.ts';
import { KnownStarts } from './knownStarts.ts';
import type { DeviceTable } from './inkTable.ts';
import { deviceTable, ManyInkTable } from './manyInkTable.ts';

/** How much heavier hue weighs than chroma where a colour is out of gamut. */
const HUE_WEIGHT = 2.4;
/** Pull of black towards its curve: weighted ΔE for the whole range of black. */
const BLACK_PULL = 1.5;
/** Push back under the limit of total ink: weighted ΔE for 100 % too much. */
const TOTAL_PUSH = 120;
const STEPS = 30;
const LEAST_GAIN = 1e-5;
/** A colour within this weighted distance is in gamut: black is then held and C, M, Y are polished. */
const IN_GAMUT = 0.6;
/** Within this weighted distance a colour is met. */
const MET = 0.02;
/** How much more a colour counts than black's curve, where two places are compared. */
const COLOUR_FIRST = 20;
/** Steps within a cell, and the weighted distance within which a colour is found there. */
const CELL_STEPS = 6;
const FOUND = 0.1;

/** Where extra inks leave a choice, the least ink is looked for: weighted ΔE for a whole ink. */
const INK_WISH = 0.5;
/** The same for an extra ink, where it takes the place of overprints not at all, and as far as it can. */
const EXTRA_WISH = [2, 0.08] as const;
/** Starts that are tried for a colour that did not come out, with more than four inks. */
const MORE_STARTS = 3;
/** A colour that was missed by more (weighted) does not print: its neighbours say how near it can be come to. */
const FAR = 1.5;

/**
 * Levenberg-Marquardt in bounded inks, black pulled to its curve, sums of inks pushed under their limits. With more inks
 * than C, M, Y, K many mixtures make a colour: the one with the least sum of squares is looked for, in which extra inks
 * count the less the farther they are to take the place of overprints.
 */
export class InkSearch {
  readonly x: Float64Array;
  readonly table: DeviceTable;
  readonly #inks: number;
  readonly #blackInk: number;
  readonly #bounds: Float64Array;
  /** Bounds at the colour that is looked for: extra inks have theirs by hue and chroma. */
  readonly #room: Float64Array;
  /** Squares of the wishes for less of each ink; none of C, M, Y, K alone. */
  readonly #wishes: Float64Array;
  readonly #starts: KnownStarts;
  readonly #target = new Float64Array(3);
  readonly #weight = new Float64Array(9);
  readonly #rest = new Float64Array(3);
  readonly #weighted: Float64Array;
  readonly #normal: Float64Array;
  readonly #gradient: Float64Array;
  readonly #damped: Float64Array;
  readonly #step: Float64Array;
  readonly #trial: Float64Array;
  readonly #start: Float64Array;
  readonly #none: Float64Array;
  readonly #least: Float64Array;
  readonly #most: Float64Array;
  #black = 0;
  #pull = BLACK_PULL;
  #held = false;
  #wishing = false;

  constructor(
    grid: ForwardGrid,
    private readonly separation: Separation,
    private readonly darkest: number,
  ) {
    const n = grid.channels;
    if (n !== separation.inkLimits.length || (separation.extra === undefined && n !== 4))
      throw new RangeError(`limits of ${separation.inkLimits.length} inks for a table of ${n}`);
    this.table = deviceTable(grid);
    this.#inks = n;
    this.#blackInk = blackOf(separation);
    this.#bounds = Float64Array.from(inkBounds(separation));
    this.#room = this.#bounds.slice();
    this.#wishes = wishesOf(separation);
    [this.x, this.#gradient, this.#step, this.#trial, this.#start, this.#none, this.#least, this.#most] =
      Array.from({ length: 8 }, () => new Float64Array(n));
    [this.#normal, this.#damped] = [new Float64Array(n * n), new Float64Array(n * n)];
    this.#weighted = new Float64Array(3 * n);
    this.#starts = new KnownStarts(this.table, inkStarts(separation), this.#bounds, this.#blackInk);
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
    const { extra } = this.separation;
    this.#black = Math.min(
      this.#bounds[this.#blackInk],
      blackFor(this.separation, this.darkest, l, Math.hypot(a, b)),
    );
    if (extra === undefined) return;
    for (const own of extra.inks) this.#room[own.ink] = this.#bounds[own.ink] * extraShare(own, a, b);
    if (this.table instanceof ManyInkTable) this.table.use((ink) => this.#room[ink] > 0);
  }

  /** Aims beside the colour that is looked for, with its black and its room. */
  aimBeside(l: number, a: number, b: number): void {
    this.#target[0] += l;
    this.#target[1] += a;
    this.#target[2] += b;
  }

  /** What two places are compared by: the colour first, then how far black is from its curve. */
  score(x: Float64Array): number {
    const colour = this.colour(x);
    const pull = BLACK_PULL * (x[this.#blackInk] - this.#black);
    return COLOUR_FIRST * colour * colour + pull * pull;
  }

  /** Looks from given inks only. */
  attempt(start: ArrayLike<number>): void {
    this.x.set(this.#within(start));
    this.#from(this.#start);
  }

  /** Looks beside inks that nearly make the colour, and keeps near them; true where it is met. */
  refine(start: ArrayLike<number>): boolean {
    this.x.set(this.#within(start));
    this.#held = true;
    this.#pull = 0;
    this.#polish();
    return this.#missed() < MET;
  }

  /** Looks from what was found last, and from the nearest start. */
  solve(): void {
    this.x.set(this.#within(this.x));
    this.#from(this.#within(this.#starts.nearest(this.#target, this.#black)));
  }

  /** Looks for the other inks beside a given black, from given inks. */
  besideBlack(black: number, start: ArrayLike<number>): void {
    this.x.set(this.#within(start));
    this.x[this.#blackInk] = black;
    this.#held = true;
    this.#pull = 0;
    this.#descend();
    this.#project();
  }

  /** A start as far as the colour that is looked for has room for it. */
  #within(start: ArrayLike<number>): Float64Array {
    for (let ink = 0; ink < this.#inks; ink++) this.#start[ink] = Math.min(start[ink], this.#room[ink]);
    return this.#start;
  }

  #from(start: Float64Array): void {
    // Black on its curve, where the others can meet the colour with it.
    this.#held = true;
    this.#pull = 0;
    this.#wishing = true;
    this.x[this.#blackInk] = this.#black;
    const before = this.#cost(this.x);
    this.#trial.set(start);
    this.#trial[this.#blackInk] = this.#black;
    if (this.#cost(this.#trial) < before) this.x.set(this.#trial);
    this.#descend();
    this.#project();
    if (this.#missed() < MET) return;
    if (this.separation.extra !== undefined && this.#missed() < IN_GAMUT) {
      this.#polish();
      if (this.#missed() < MET) return;
    }
    // Else black gives way, as little as it can; then it is held where it came to lie.
    this.#held = false;
    this.#pull = BLACK_PULL;
    this.#wishing = true;
    const here = this.#cost(this.x);
    if (this.#cost(start) < here) this.x.set(start);
    this.#descend();
    this.#project();
    this.#held = true;
    this.#pull = 0;
    this.#wishing = false;
    if (this.#missed() < IN_GAMUT) this.#polish();
  }

  /** Meets the colour itself, whatever was wished. */
  #polish(): void {
    this.#wishing = false;
    this.#descend();
    this.#project();
  }

  /** Weighted distance from the target, and what is over the limits. */
  #missed(): number {
    const wishing = this.#wishing;
    this.#wishing = false;
    const cost = this.#cost(this.x);
    this.#wishing = wishing;
    return Math.sqrt(cost);
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
   * the colour is taken not to print by this table. Of more than four inks there are too many cells: it looks from more
   * starts instead.
   * @param missed weighted distance of what was found so far.
   */
  searchCells(missed: number): boolean {
    if (this.separation.extra !== undefined) return this.#fromMoreStarts(missed);
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

  #fromMoreStarts(missed: number): boolean {
    if (missed > FAR) return false;
    return this.#starts.nearestFew(this.#target, this.#black, MORE_STARTS).some((start) => {
      this.attempt(start);
      return this.colour(this.x) <= FOUND;
    });
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

  #over(x: Float64Array): number {
    let total = 0;
    for (let ink = 0; ink < this.#inks; ink++) total += x[ink];
    return Math.max(0, total - this.separation.totalInk);
  }

  #cost(x: Float64Array): number {
    this.table.evaluate(x);
    this.#weigh();
    const [r0, r1, r2] = this.#rest;
    const pull = this.#pull * (x[this.#blackInk] - this.#black);
    const push = TOTAL_PUSH * this.#over(x);
    let cost = r0 * r0 + r1 * r1 + r2 * r2 + pull * pull + push * push;
    if (this.#wishing) for (let ink = 0; ink < this.#inks; ink++) cost += this.#wishes[ink] * x[ink] * x[ink];
    for (const { inks, most } of this.separation.pairLimits ?? NO_PAIRS) {
      const over = TOTAL_PUSH * Math.max(0, x[inks[0]] + x[inks[1]] - most);
      cost += over * over;
    }
    return cost;
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
    // What was evaluated last is what lies in x: the start, or the step that was taken.
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

  /** Slopes at x, which was evaluated last. */
  #linearise(): void {
    const w = this.#weight;
    const j = this.table.jacobian;
    const wj = this.#weighted;
    const n = this.#inks;
    for (let c = 0; c < n; c++) {
      wj[c] = w[0] * j[c];
      wj[n + c] = w[4] * j[n + c] + w[5] * j[2 * n + c];
      wj[2 * n + c] = w[7] * j[n + c] + w[8] * j[2 * n + c];
    }
    const over = this.#over(this.x);
    const push = over > 0 ? TOTAL_PUSH * TOTAL_PUSH : 0;
    for (let i = 0; i < n; i++) {
      this.#gradient[i] =
        -(wj[i] * this.#rest[0] + wj[n + i] * this.#rest[1] + wj[2 * n + i] * this.#rest[2]) - push * over;
      for (let k = 0; k < n; k++)
        this.#normal[n * i + k] =
          wj[i] * wj[k] + wj[n + i] * wj[n + k] + wj[2 * n + i] * wj[2 * n + k] + push;
    }
    const pull = this.#pull * this.#pull;
    this.#gradient[this.#blackInk] -= pull * (this.x[this.#blackInk] - this.#black);
    this.#normal[(n + 1) * this.#blackInk] += pull;
    if (this.#wishing)
      for (let i = 0; i < n; i++) {
        this.#gradient[i] -= this.#wishes[i] * this.x[i];
        this.#normal[(n + 1) * i] += this.#wishes[i];
      }
    for (const pair of this.separation.pairLimits ?? NO_PAIRS) this.#pushPair(pair);
  }

  #pushPair({ inks, most }: PairLimit): void {
    const over = this.x[inks[0]] + this.x[inks[1]] - most;
    if (over <= 0) return;
    const push = TOTAL_PUSH * TOTAL_PUSH;
    for (const i of inks) {
      this.#gradient[i] -= push * over;
      for (const k of inks) this.#normal[this.#inks * i + k] += push;
    }
  }

  #trialStep(
    damping: number,
    least: ArrayLike<number> = this.#none,
    most: ArrayLike<number> = this.#room,
  ): boolean {
    const a = this.#damped;
    const s = this.#step;
    const n = this.#inks;
    a.set(this.#normal);
    s.set(this.#gradient);
    for (let i = 0; i < n; i++) {
      const frozen =
        (this.#held && i === this.#blackInk) ||
        (this.x[i] <= least[i] && s[i] < 0) ||
        (this.x[i] >= most[i] && s[i] > 0) ||
        most[i] <= least[i];
      if (frozen) {
        for (let k = 0; k < n; k++) {
          a[n * i + k] = 0;
          a[n * k + i] = 0;
        }
        a[(n + 1) * i] = 1;
        s[i] = 0;
      } else a[(n + 1) * i] += damping * a[(n + 1) * i] + 1e-9;
    }
    if (!choleskyFactor(a, n)) return false;
    choleskySolve(a, n, s);
    for (let i = 0; i < n; i++) this.#trial[i] = Math.min(most[i], Math.max(least[i], this.x[i] + s[i]));
    return true;
  }

  /** Exactly under all limits. */
  #project(): void {
    keepLimits(this.x, 0, this.#room, this.separation);
  }
}

const NO_PAIRS: readonly PairLimit[] = [];

/** Squares of the wishes for less of each ink. */
function wishesOf({ inkLimits, extra }: Separation): Float64Array {
  const out = new Float64Array(inkLimits.length);
  if (extra === undefined) return out;
  const [none, all] = EXTRA_WISH;
  const ofExtra = none * (all / none) ** extra.replace;
  for (const ink of extra.base) out[ink] = INK_WISH ** 2;
  for (const { ink } of extra.inks) out[ink] = ofExtra ** 2;
  return out;
}
