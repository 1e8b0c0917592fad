import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labFunction } from '../colour/xyzToLab.ts';
import { BandFit } from './bandFit.ts';
import type { ToneFreedom } from './bandFit.ts';
import { cubicBasis } from './cubicBasis.ts';
import { LEAST_ROOT } from './solidPrior.ts';

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

const FACTORS = [1.3, 1.6, 1.9, 2.2, 2.6, 3.2, 4] as const;
const STEPS = 8;
/** Steps after which the factors are compared, and how many of them are likely. */
const STEPS_TO_JUDGE = 4;
const LIKELY = 2;
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
  const basis = basisRows(device, freedom.bends);
  const begin = (factor: number): readonly BandFit[] =>
    [0, 1, 2].map((axis) => new BandFit({ device, inks, xyz, axis, counts, basis, nu: factor, freedom }));
  const wanted = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i++) wanted[i] = 116 * labFunction(xyz[i] / WHITE_D50_MEASURED[i % 3]);
  const after = (bands: readonly BandFit[], steps: number): Fitted => {
    for (const band of bands) band.run(steps);
    return fittedOf(bands, device, counts, wanted);
  };
  if (nu !== undefined) return after(begin(nu), STEPS).physics;
  // Few steps tell which factors are none: only the likely ones go to the end.
  return FACTORS.map((factor) => {
    const bands = begin(factor);
    return { bands, rms: after(bands, STEPS_TO_JUDGE).rms };
  })
    .sort((one, other) => one.rms - other.rms)
    .slice(0, LIKELY)
    .map(({ bands }) => after(bands, STEPS))
    .reduce((best, other) => (other.rms < best.rms ? other : best)).physics;
}

/** A mixing model, and how far it is from the patches in fit space. */
interface Fitted {
  readonly physics: InkPhysics;
  readonly rms: number;
}

function fittedOf(
  bands: readonly BandFit[],
  device: Float64Array,
  counts: Float64Array,
  wanted: Float64Array,
): Fitted {
  const [{ inks, nu, freedom }] = bands.map(({ data }) => data);
  const physics: InkPhysics = {
    ...{ inks, nu },
    solids: bands.map(({ solids }) => solids),
    areas: bands.map(({ tone }) => toneTables(tone, inks, freedom.bends)),
  };
  const y = new Float64Array(wanted.length);
  inkPhysicsFit(physics, device, y);
  let sum = 0;
  for (let i = 0; i < y.length; i++) sum += counts[Math.floor(i / 3)] * (y[i] - wanted[i]) ** 2;
  return { physics, rms: sum };
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
