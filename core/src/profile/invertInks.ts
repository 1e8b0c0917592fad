import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { blackFor, inkBounds } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { labWeights } from '../colour/labWeights.ts';
import { InkTable } from './inkTable.ts';
import type { Inversion } from './invertRgb.ts';

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

/** L* of the darkest neutral under the limits, by the table: the nearest to a* = b* = 0 of the darkest colours. */
export function darkestNeutral(grid: ForwardGrid, separation: Separation): number {
  const search = new InkSearch(grid, separation, 0);
  search.solve(0, 0, 0);
  search.table.evaluate(search.x);
  return search.table.lab[0];
}

/**
 * Device values of four inks whose colour, by the interpolated table itself, is nearest to each target, with black near
 * its curve and all limits kept in every node.
 * @param targets row-major × 3, media-relative Lab.
 * @param darkest L* of the darkest neutral, see `darkestNeutral`.
 */
export function invertInks(
  grid: ForwardGrid,
  targets: Float64Array,
  separation: Separation,
  darkest: number,
  onProgress?: (fraction: number) => void,
): Inversion {
  const search = new InkSearch(grid, separation, darkest);
  const count = targets.length / 3;
  const device = new Float64Array(count * 4);
  const distance = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    search.solve(targets[3 * i], targets[3 * i + 1], targets[3 * i + 2]);
    device.set(search.x, 4 * i);
    distance[i] = search.distance();
    if (onProgress !== undefined && i % 1024 === 0) onProgress(i / count);
  }
  return { device, distance };
}

/** Levenberg-Marquardt in four bounded variables, black pulled to its curve, total ink pushed under its limit. */
class InkSearch {
  readonly x = new Float64Array(4);
  readonly table: InkTable;
  readonly #bounds: readonly number[];
  readonly #starts: Float64Array;
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
    this.#starts = Float64Array.from(starts);
    this.#startLab = new Float64Array((starts.length / 4) * 3);
    for (let i = 0; i * 4 < starts.length; i++) {
      this.table.evaluate(this.#starts.subarray(4 * i, 4 * i + 4));
      this.#startLab.set(this.table.lab, 3 * i);
    }
  }

  distance(): number {
    this.table.evaluate(this.x);
    const [l, a, b] = this.table.lab;
    return Math.hypot(l - this.#target[0], a - this.#target[1], b - this.#target[2]);
  }

  solve(l: number, a: number, b: number): void {
    this.#target.set([l, a, b]);
    labWeights(l, a, b, HUE_WEIGHT, this.#weight);
    this.#black = Math.min(this.#bounds[3], blackFor(this.separation, this.darkest, l, Math.hypot(a, b)));
    // Black on its curve, where C, M, Y can meet the colour with it.
    this.#held = true;
    this.#pull = 0;
    this.x[3] = this.#black;
    const before = this.#cost(this.x);
    const start = this.#nearestStart();
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

  #nearestStart(): Float64Array {
    const [l, a, b] = this.#target;
    const lab = this.#startLab;
    let best = Infinity;
    let at = 0;
    for (let i = 0, k = 3; i < lab.length; i += 3, k += 4) {
      const dl = lab[i] - l;
      const da = lab[i + 1] - a;
      const db = lab[i + 2] - b;
      const dk = 12 * (this.#starts[k] - this.#black);
      const d = dl * dl + 0.5 * (da * da + db * db) + dk * dk;
      if (d < best) {
        best = d;
        at = k - 3;
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

  #trialStep(damping: number): boolean {
    const a = this.#damped;
    const s = this.#step;
    a.set(this.#normal);
    s.set(this.#gradient);
    const limits = this.#bounds;
    for (let i = 0; i < 4; i++) {
      const frozen =
        (this.#held && i === 3) || (this.x[i] <= 0 && s[i] < 0) || (this.x[i] >= limits[i] && s[i] > 0);
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
    for (let i = 0; i < 4; i++) this.#trial[i] = Math.min(limits[i], Math.max(0, this.x[i] + s[i]));
    return true;
  }

  /** Exactly under the limit of total ink: C, M, Y give way, black stays. */
  #project(): void {
    const over = this.#over(this.x);
    if (over <= 0) return;
    const chromatic = this.x[0] + this.x[1] + this.x[2];
    const factor = Math.max(0, (chromatic - over) / chromatic);
    for (let i = 0; i < 3; i++) this.x[i] *= factor;
  }
}
