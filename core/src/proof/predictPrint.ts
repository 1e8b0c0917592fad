import { deltaE2000, deltaE2000Rows } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { transformed } from '../transform/transform.ts';
import type { SoftProof } from './softProof.ts';

/** A colour of a job that comes out far from what is asked. */
export interface LostColour {
  readonly asked: Lab;
  readonly printed: Lab;
  readonly deltaE: number;
  /** Its share of what was looked at, with colours like it. */
  readonly share: number;
}

/** What a job's colours would come to on a device, by its profile. */
export interface PredictedPrint {
  /** ΔE00 to the picture as it is, relative to the whites of both. */
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  /** Share of colours over 3 ΔE00. */
  readonly over3: number;
  /** Mean sum of the device values, 1 = one full channel. */
  readonly ink: number;
  /** The worst colours, no two of them alike; black that is brought to black is no loss. */
  readonly lost: readonly LostColour[];
}

const LOST = 5;
/** Colours nearer to each other than this are one, ΔE00. */
const ALIKE = 8;

/**
 * How a job's colours come out on a device.
 * @param values of the picture, row-major × channels, 0..1: each counts alike.
 */
export function predictPrint(proof: SoftProof, values: Float64Array): PredictedPrint {
  return summarisePrint(printColours(proof, values));
}

/** What becomes of each colour of a job on a device. */
export interface PrintedColours {
  /** Device values, row-major × inks. */
  readonly device: Float64Array;
  /** Lab that is asked for, and that prints, row-major × 3. */
  readonly asked: Float64Array;
  readonly printed: Float64Array;
  /** ΔE00 of print to picture. */
  readonly errors: Float64Array;
}

/** @param values of the picture, row-major × channels, 0..1. */
export function printColours(proof: SoftProof, values: Float64Array): PrintedColours {
  const device = transformed(proof.toDevice, values);
  const printed = transformed(proof.compared, device);
  // A print whose black is lighter is farther from the picture, though no colour is lost by it.
  const errors = deltaE2000Rows(transformed(proof.original, values), printed);
  return { device, asked: transformed(proof.asked, values), printed, errors };
}

export function summarisePrint({ device, asked, printed, errors }: PrintedColours): PredictedPrint {
  const rows = errors.length;
  const losses = deltaE2000Rows(asked, printed);
  const order = [...losses.keys()].sort((a, b) => losses[b] - losses[a]);
  const sorted = errors.slice().sort();
  const lost: LostColour[] = [];
  for (const row of order) {
    if (lost.length === LOST || losses[row] < 1) break;
    const own = three(asked, row);
    if (lost.some((known) => deltaE2000(own, known.asked) < ALIKE)) continue;
    let alike = 0;
    for (let other = 0; other < rows; other++) if (deltaE2000(own, three(asked, other)) < ALIKE) alike++;
    lost.push({ asked: own, printed: three(printed, row), deltaE: losses[row], share: alike / rows });
  }
  return {
    mean: rows === 0 ? 0 : errors.reduce((sum, value) => sum + value, 0) / rows,
    p95: rows === 0 ? 0 : sorted[Math.min(rows - 1, Math.ceil(0.95 * rows) - 1)],
    largest: rows === 0 ? 0 : sorted[rows - 1],
    over3: rows === 0 ? 0 : errors.reduce((count, value) => count + (value > 3 ? 1 : 0), 0) / rows,
    ink: rows === 0 ? 0 : device.reduce((sum, value) => sum + value, 0) / rows,
    lost,
  };
}

const three = (lab: Float64Array, row: number): Lab => [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]];
