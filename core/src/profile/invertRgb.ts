import { solve3 } from '../numerics/solve3.ts';
import type { Lab } from '../colour/lab.ts';
import { steadyHue } from '../gamut/steadyHue.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { labWeights } from '../colour/labWeights.ts';

/** The device value found for a Lab target. */
export interface Inversion {
  readonly device: Float64Array;
  /** ΔE*ab left between the target and the colour of the device value, one per target. */
  readonly distance: Float64Array;
}

/** How much heavier hue weighs than chroma where a colour is out of gamut. */
const HUE_WEIGHT = 2.2;
const START_POINTS = 9;
const STEPS = 40;
/** A step that lowers the cost by a smaller share is the last one. */
const LEAST_GAIN = 1e-6;
/** ΔE*ab from the nearest colour that prints, from which a colour counts as out of gamut. */
const OUT_OF_GAMUT = 0.5;

/**
 * Device values whose colour, by the interpolated forward table itself, is nearest to each target: exactly inside
 * the gamut, by weighted least distance in L, C, h outside.
 * @param targets row-major × 3, media-relative Lab.
 * @param onProgress called now and then with the share done.
 */
export function invertRgb(
  grid: ForwardGrid,
  targets: Float64Array,
  onProgress?: (fraction: number) => void,
): Inversion {
  if (grid.channels !== 3)
    throw new RangeError(`an inverse of three channels for a grid of ${grid.channels}`);
  const search = new NodeSearch(grid);
  const count = targets.length / 3;
  const device = new Float64Array(targets.length);
  const distance = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    search.solve(targets[3 * i], targets[3 * i + 1], targets[3 * i + 2]);
    distance[i] = search.distance();
    if (distance[i] > OUT_OF_GAMUT) search.keepHue();
    device.set(search.x, 3 * i);
    if (onProgress !== undefined && i % 2048 === 0) onProgress(i / count);
  }
  return { device, distance };
}

/** Levenberg-Marquardt in three bounded variables on the piecewise linear table. */
class NodeSearch {
  readonly x = new Float64Array(3);
  readonly #starts: Float64Array;
  readonly #startLab: Float64Array;
  readonly #lab = new Float64Array(3);
  readonly #jacobian = new Float64Array(9);
  readonly #target = new Float64Array(3);
  readonly #weight = new Float64Array(9);
  readonly #r = new Float64Array(3);
  readonly #wj = new Float64Array(9);
  readonly #normal = new Float64Array(9);
  readonly #gradient = new Float64Array(3);
  readonly #damped = new Float64Array(9);
  readonly #free = new Float64Array(3);
  readonly #step = new Float64Array(3);
  readonly #trial = new Float64Array(3);

  constructor(private readonly grid: ForwardGrid) {
    const n = START_POINTS;
    this.#starts = new Float64Array(n ** 3 * 3);
    this.#startLab = new Float64Array(n ** 3 * 3);
    for (let i = 0, at = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        for (let k = 0; k < n; k++, at += 3) {
          this.x.set([i / (n - 1), j / (n - 1), k / (n - 1)]);
          this.#evaluate(this.x);
          this.#starts.set(this.x, at);
          this.#startLab.set(this.#lab, at);
        }
    this.x.fill(0.5);
  }

  distance(): number {
    this.#evaluate(this.x);
    const [l, a, b] = this.#lab;
    return Math.hypot(l - this.#target[0], a - this.#target[1], b - this.#target[2]);
  }

  /** Looks again, for what is nearest at the hue that the eye sees, not at the angle of Lab. */
  keepHue(): void {
    const [l, a, b] = this.#target;
    this.#evaluate(this.x);
    const wanted: Lab = [l, a, b];
    const aimed = steadyHue(wanted, Math.hypot(this.#lab[1], this.#lab[2]));
    if (aimed !== wanted) this.solve(...aimed);
  }

  solve(l: number, a: number, b: number): void {
    this.#target.set([l, a, b]);
    labWeights(l, a, b, HUE_WEIGHT, this.#weight);
    // The solution of the node before is the best start when it is near; else the nearest of a coarse grid.
    let cost = this.#cost(this.x);
    const near = this.#nearestStart();
    const startCost = this.#cost(near);
    if (startCost < cost) {
      this.x.set(near);
      cost = startCost;
    }
    let damping = 1e-4;
    for (let step = 0; step < STEPS && cost > 1e-12; step++) {
      this.#linearise();
      let improved = false;
      for (let attempt = 0; attempt < 8; attempt++) {
        if (!this.#trialStep(damping)) {
          damping *= 10;
          continue;
        }
        const next = this.#cost(this.#trial);
        if (next < cost) {
          const gain = cost - next;
          this.x.set(this.#trial);
          cost = next;
          damping = Math.max(1e-9, damping * 0.2);
          improved = gain > LEAST_GAIN * cost + 1e-14;
          break;
        }
        damping *= 8;
      }
      if (!improved) break;
    }
  }

  #nearestStart(): Float64Array {
    const [l, a, b] = this.#target;
    let best = Infinity;
    let at = 0;
    const lab = this.#startLab;
    for (let i = 0; i < lab.length; i += 3) {
      const dl = lab[i] - l;
      const da = lab[i + 1] - a;
      const db = lab[i + 2] - b;
      const d = dl * dl + 0.5 * (da * da + db * db);
      if (d < best) {
        best = d;
        at = i;
      }
    }
    return this.#starts.subarray(at, at + 3);
  }

  #cost(x: Float64Array): number {
    this.#evaluate(x);
    return this.#weightedResidual();
  }

  #weightedResidual(): number {
    const w = this.#weight;
    const d0 = this.#lab[0] - this.#target[0];
    const d1 = this.#lab[1] - this.#target[1];
    const d2 = this.#lab[2] - this.#target[2];
    const r = this.#r;
    r[0] = w[0] * d0;
    r[1] = w[4] * d1 + w[5] * d2;
    r[2] = w[7] * d1 + w[8] * d2;
    return r[0] * r[0] + r[1] * r[1] + r[2] * r[2];
  }

  #linearise(): void {
    this.#evaluate(this.x);
    this.#weightedResidual();
    const w = this.#weight;
    const j = this.#jacobian;
    const wj = this.#wj;
    for (let c = 0; c < 3; c++) {
      wj[c] = w[0] * j[c];
      wj[3 + c] = w[4] * j[3 + c] + w[5] * j[6 + c];
      wj[6 + c] = w[7] * j[3 + c] + w[8] * j[6 + c];
    }
    for (let i = 0; i < 3; i++) {
      this.#gradient[i] = -(wj[i] * this.#r[0] + wj[3 + i] * this.#r[1] + wj[6 + i] * this.#r[2]);
      for (let k = 0; k < 3; k++)
        this.#normal[3 * i + k] = wj[i] * wj[k] + wj[3 + i] * wj[3 + k] + wj[6 + i] * wj[6 + k];
    }
  }

  /** A damped step within the bounds; variables that the gradient pushes over a bound stay. */
  #trialStep(damping: number): boolean {
    const a = this.#damped;
    const g = this.#free;
    a.set(this.#normal);
    g.set(this.#gradient);
    for (let i = 0; i < 3; i++) {
      const frozen = (this.x[i] <= 0 && g[i] < 0) || (this.x[i] >= 1 && g[i] > 0);
      if (frozen) {
        for (let k = 0; k < 3; k++) {
          a[3 * i + k] = 0;
          a[3 * k + i] = 0;
        }
        a[4 * i] = 1;
        g[i] = 0;
      } else a[4 * i] += damping * a[4 * i] + 1e-9;
    }
    if (!solve3(a, g, this.#step)) return false;
    for (let i = 0; i < 3; i++) this.#trial[i] = Math.min(1, Math.max(0, this.x[i] + this.#step[i]));
    return true;
  }

  /** Lab and its exact Jacobian (row-major output × input) by tetrahedral interpolation. */
  #evaluate(x: Float64Array): void {
    const n = this.grid.points;
    const lab = this.grid.lab;
    const scale = n - 1;
    const strides = STRIDES;
    strides[0] = 3 * n * n;
    strides[1] = 3 * n;
    strides[2] = 3;
    let base = 0;
    for (let i = 0; i < 3; i++) {
      const p = x[i] * scale;
      const cell = Math.min(p | 0, n - 2);
      FRACTIONS[i] = p - cell;
      base += cell * strides[i];
    }
    // Order the axes by falling fraction.
    let a = 0;
    let b = 1;
    let c = 2;
    if (FRACTIONS[a] < FRACTIONS[b]) [a, b] = [b, a];
    if (FRACTIONS[b] < FRACTIONS[c]) [b, c] = [c, b];
    if (FRACTIONS[a] < FRACTIONS[b]) [a, b] = [b, a];
    const v1 = base + strides[a];
    const v2 = v1 + strides[b];
    const v3 = v2 + strides[c];
    for (let o = 0; o < 3; o++) {
      const y0 = lab[base + o];
      const y1 = lab[v1 + o];
      const y2 = lab[v2 + o];
      const y3 = lab[v3 + o];
      const da = y1 - y0;
      const db = y2 - y1;
      const dc = y3 - y2;
      this.#lab[o] = y0 + FRACTIONS[a] * da + FRACTIONS[b] * db + FRACTIONS[c] * dc;
      this.#jacobian[3 * o + a] = da * scale;
      this.#jacobian[3 * o + b] = db * scale;
      this.#jacobian[3 * o + c] = dc * scale;
    }
  }
}

const STRIDES = new Int32Array(3);
const FRACTIONS = new Float64Array(3);
