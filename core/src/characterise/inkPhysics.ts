import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labFunction, labFunctionSlope } from '../colour/xyzToLab.ts';
import { solvePositiveDefinite } from '../numerics/cholesky.ts';
import { mean } from '../numerics/statistics.ts';
import { cubicBasis } from './cubicBasis.ts';
import { addSolidPrior, LEAST_ROOT, printedSolids } from './solidPrior.ts';

/**
 * Yule-Nielsen mixing of the 2^n solids for each of X, Y, Z, with a free tone curve an ink:
 * V^(1/ν) = Σ_p P_p Π_i (a_i or 1 − a_i), a_i(d) = d + Σ_k c_ik B_k(d).
 */
export interface InkPhysics {
  readonly inks: number;
  readonly nu: number;
  /** For each of X, Y, Z the roots of the solids, bit i of the index set where ink i is full. */
  readonly solids: readonly Float64Array[];
  /** For each of X, Y, Z and each ink its area at the device values i/1024. */
  readonly areas: readonly (readonly Float64Array[])[];
}

/** How freely tone curves bend: their basis functions, and what a bend costs. */
export interface ToneFreedom {
  readonly bends: number;
  readonly penalty: number;
}

const FACTORS = [1.3, 1.6, 1.9, 2.2, 2.6, 3.2, 4] as const;
const STEPS = 8;
const SETTLED = 1e-6;
const SOLID_PENALTY = 1e-7;
/** Of more inks than this not every overprint is printed: those that are not follow from the others. */
const MOST_KNOWN = 4;
const SOLID_PRIOR = 2e-5;
const MOST_HALVINGS = 6;
const TABLE = 1024;

/**
 * Fits the mixing model by Gauss-Newton steps. Each patch weighs as a change of its root shows in fit space: dark
 * patches, whose roots are small, count by what is seen of them. The Yule-Nielsen factor is the one with the least rms
 * in fit space.
 * @param device distinct rows, row-major × inks, 0..1.
 * @param xyz Y = 100.
 * @param counts readings behind each row.
 * @param freedom of the tone curves.
 * @param nu tried alone where given.
 */
export function fitInkPhysics(
  device: Float64Array,
  inks: number,
  xyz: Float64Array,
  counts: Float64Array,
  freedom: ToneFreedom,
  nu?: number,
): InkPhysics {
  let best: { physics: InkPhysics; rms: number } | undefined;
  const basis = basisRows(device, freedom.bends);
  const y = new Float64Array(xyz.length);
  for (const factor of nu === undefined ? FACTORS : [nu]) {
    const bands = [0, 1, 2].map((axis) =>
      fitBand({ device, inks, xyz, axis, counts, basis, nu: factor, freedom }),
    );
    const physics: InkPhysics = {
      inks,
      nu: factor,
      solids: bands.map(({ solids }) => solids),
      areas: bands.map(({ tone }) => toneTables(tone, inks, freedom.bends)),
    };
    inkPhysicsFit(physics, device, y);
    let sum = 0;
    for (let i = 0; i < xyz.length; i++)
      sum += counts[Math.floor(i / 3)] * (y[i] - 116 * labFunction(xyz[i] / WHITE_D50_MEASURED[i % 3])) ** 2;
    if (best === undefined || sum < best.rms) best = { physics, rms: sum };
  }
  if (best === undefined) throw new RangeError('no Yule-Nielsen factor to try');
  return best.physics;
}

/** Fit-space values (116·f(XYZ/W)) of device rows; `out` row-major × 3. */
export function inkPhysicsFit(physics: InkPhysics, device: ArrayLike<number>, out: Float64Array): void {
  const { inks, nu, solids, areas } = physics;
  const size = 1 << inks;
  const mix = new Float64Array(size);
  for (let row = 0, rows = device.length / inks; row < rows; row++)
    for (let axis = 0; axis < 3; axis++) {
      mix.set(solids[axis]);
      // Ink by ink, the last one first: the table of solids halves each time.
      for (let ink = inks - 1, half = size >> 1; ink >= 0; ink--, half >>= 1) {
        const area = areaAt(areas[axis][ink], device[row * inks + ink]);
        for (let p = 0; p < half; p++) mix[p] += area * (mix[p + half] - mix[p]);
      }
      const root = Math.max(LEAST_ROOT, mix[0]);
      out[row * 3 + axis] = 116 * labFunction(Math.pow(root, nu) / WHITE_D50_MEASURED[axis]);
    }
}

/** Areas that inks cover, for each of X, Y, Z by ink. */
export function inkPhysicsAreas({ inks, areas }: InkPhysics, device: ArrayLike<number>): Float64Array[] {
  return areas.map((tables) =>
    Float64Array.from({ length: inks }, (_, ink) => areaAt(tables[ink], device[ink])),
  );
}

/** Area that a device value covers, by the table of its ink. */
function areaAt(table: Float64Array, value: number): number {
  const at = Math.min(1, Math.max(0, value)) * TABLE;
  const low = Math.min(TABLE - 1, Math.floor(at));
  return table[low] + (at - low) * (table[low + 1] - table[low]);
}

function basisRows(device: Float64Array, bends: number): Float64Array {
  const out = new Float64Array(device.length * bends);
  for (let i = 0; i < device.length; i++) cubicBasis(device[i], out.subarray(i * bends, (i + 1) * bends));
  return out;
}

function toneTables(tone: Float64Array, inks: number, bends: number): Float64Array[] {
  const values = new Float64Array(bends);
  return Array.from({ length: inks }, (_, ink) =>
    Float64Array.from({ length: TABLE + 1 }, (_, i) => {
      cubicBasis(i / TABLE, values);
      let area = i / TABLE;
      for (let k = 0; k < bends; k++) area += tone[ink * bends + k] * values[k];
      return area;
    }),
  );
}

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

function fitBand({ device, inks, xyz, axis, counts, basis, nu, freedom }: BandData): {
  solids: Float64Array;
  tone: Float64Array;
} {
  const rows = counts.length;
  const size = 1 << inks;
  const { bends } = freedom;
  const tones = inks * bends;
  const unknowns = size + tones;
  const target = Float64Array.from({ length: rows }, (_, row) =>
    Math.pow(Math.max(1e-3, xyz[3 * row + axis]), 1 / nu),
  );
  const seen = slopeWeights(target, nu, WHITE_D50_MEASURED[axis]);
  let scale = 0;
  let weightSum = 0;
  for (let row = 0; row < rows; row++) {
    scale = Math.max(scale, target[row]);
    weightSum += counts[row];
  }
  const solids = new Float64Array(size);
  const tone = new Float64Array(tones);
  const areas = new Float64Array(inks);
  const weights = new Float64Array(size);
  const line = new Float64Array(unknowns);
  // Of the free bends an ink's value touches four at most, and a solid ink leaves half of the solids out.
  const touched = new Int32Array(unknowns);
  const many = inks > MOST_KNOWN;
  const folded = new Float64Array(size);
  if (many) solids.set(printedSolids(device, target, inks));
  let reached:
    | { readonly cost: number; readonly solids: Float64Array; readonly tone: Float64Array }
    | undefined;
  let halvings = 0;
  for (let step = many ? 1 : 0; step <= STEPS; step++) {
    // The first step finds the solids alone, with straight tone curves.
    const width = step === 0 ? size : unknowns;
    const normal = new Float64Array(width * width);
    const right = new Float64Array(width);
    let cost = 0;
    for (let row = 0; row < rows; row++) {
      areasOf(device, basis, tone, row, bends, areas);
      mixtureWeights(areas, inks, weights);
      let value = 0;
      for (let p = 0; p < size; p++) {
        line[p] = weights[p];
        value += weights[p] * solids[p];
      }
      if (width > size)
        for (let ink = 0; ink < inks; ink++) {
          const slope = mixtureSlope(areas, inks, ink, solids, folded);
          for (let k = 0; k < bends; k++)
            line[size + ink * bends + k] = slope * basis[(row * inks + ink) * bends + k];
        }
      const rest = target[row] - value;
      const weight = counts[row] * seen[row];
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
    if (many) {
      // A step that made it worse was too long: back half of the way.
      if (reached !== undefined && cost > reached.cost && halvings < MOST_HALVINGS) {
        const { solids: before, tone: curves } = reached;
        for (let p = 0; p < size; p++) solids[p] = (solids[p] + before[p]) / 2;
        for (let k = 0; k < tones; k++) tone[k] = (tone[k] + curves[k]) / 2;
        halvings++;
        step--;
        continue;
      }
      halvings = 0;
      reached = { cost, solids: solids.slice(), tone: tone.slice() };
    }
    for (let p = 0; p < size; p++) normal[p * width + p] += SOLID_PENALTY * weightSum;
    if (many) addSolidPrior(normal, right, solids, inks, width, SOLID_PRIOR * weightSum);
    if (width > size)
      addBendPenalty(normal, right, tone, size, bends, freedom.penalty * weightSum * scale * scale);
    for (let p = 0; p < width; p++)
      for (let q = p + 1; q < width; q++) normal[p * width + q] = normal[q * width + p];
    const change = solvePositiveDefinite(normal, width, right);
    for (let p = 0; p < size; p++)
      solids[p] = many ? Math.max(LEAST_ROOT, solids[p] + change[p]) : solids[p] + change[p];
    for (let k = 0; k < width - size; k++) tone[k] += change[size + k];
    if (step > 0 && settled(change, size, scale)) break;
  }
  return { solids, tone };
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

/** Shares of the solids where inks cover areas at random (Demichel). */
export function mixtureWeights(areas: Float64Array, inks: number, out: Float64Array): void {
  out[0] = 1;
  for (let ink = 0, filled = 1; ink < inks; ink++, filled <<= 1)
    for (let p = 0; p < filled; p++) {
      out[p + filled] = out[p] * areas[ink];
      out[p] *= 1 - areas[ink];
    }
}

/** Derivative of the mixture with the area of one ink: ink by ink, each of which halves the table of solids; those that are not printed cost nothing. */
function mixtureSlope(
  areas: Float64Array,
  inks: number,
  which: number,
  solids: Float64Array,
  folded: Float64Array,
): number {
  // The wanted ink comes to lie last, as the difference of its two halves.
  let size = solids.length;
  folded.set(solids);
  for (let ink = inks - 1; ink > which; ink--) {
    size >>= 1;
    const area = areas[ink];
    if (area !== 0) for (let p = 0; p < size; p++) folded[p] += area * (folded[p + size] - folded[p]);
  }
  size >>= 1;
  for (let p = 0; p < size; p++) folded[p] = folded[p + size] - folded[p];
  for (let ink = which - 1; ink >= 0; ink--) {
    size >>= 1;
    const area = areas[ink];
    if (area !== 0) for (let p = 0; p < size; p++) folded[p] += area * (folded[p + size] - folded[p]);
  }
  return folded[0];
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
