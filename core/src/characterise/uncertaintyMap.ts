import { createRandom } from '../numerics/random.ts';
import { channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { Random } from '../numerics/random.ts';
import type { ModelUncertainty } from './modelUncertainty.ts';

/** Where a model is sure and where not: expected ΔE00 by lightness and hue, reading noise left out. */
export interface UncertaintyMap {
  /** Lower bounds of the bands of L*, darkest first. */
  readonly lightness: readonly number[];
  /** Names of the columns: greys, then twelve sectors of hue by their middle in degrees. */
  readonly columns: readonly (number | 'grey')[];
  /** Row-major band × column, null where the device prints next to nothing there. */
  readonly deltaE: readonly (number | null)[];
  readonly mean: number;
}

const BANDS = [0, 20, 40, 60, 80] as const;
const SECTORS = 12;
const GREY_CHROMA = 8;
const PROBES = 2500;
const LEAST_PROBES = 4;

/** @param totalInk limit of the sum where inks drive the device, 1 = 100 %. */
export function uncertaintyMap(
  uncertainty: ModelUncertainty,
  process: Process,
  totalInk = Infinity,
  seed = 1,
): UncertaintyMap {
  const random = createRandom(seed);
  const columns = 1 + SECTORS;
  const sums = new Float64Array(BANDS.length * columns);
  const counts = new Float64Array(sums.length);
  const lab = new Float64Array(3);
  let total = 0;
  for (let probe = 0; probe < PROBES;) {
    // Light and grey colours are rare among random values: every other probe is drawn from them.
    const device = probe % 2 === 1 ? lightOrGrey(process, random) : randomValues(process, random);
    if (device.reduce((a, b) => a + b, 0) > totalInk) continue;
    uncertainty.lab(device, lab);
    const band = BANDS.reduce((at: number, from, i) => (lab[0] >= from ? i : at), 0);
    const chroma = Math.hypot(lab[1], lab[2]);
    const turn = Math.atan2(lab[2], lab[1]) / (2 * Math.PI) + 1;
    const column = chroma < GREY_CHROMA ? 0 : 1 + (Math.round(turn * SECTORS) % SECTORS);
    const error = uncertainty.deltaEAt(device);
    sums[band * columns + column] += error;
    counts[band * columns + column]++;
    total += error;
    probe++;
  }
  return {
    lightness: BANDS,
    columns: ['grey', ...Array.from({ length: SECTORS }, (_, i) => (360 * i) / SECTORS)],
    deltaE: Array.from(sums, (sum, i) => (counts[i] < LEAST_PROBES ? null : sum / counts[i])),
    mean: total / PROBES,
  };
}

function randomValues(process: Process, random: Random): number[] {
  return Array.from({ length: channelCount(process) }, () => random.uniform());
}

function lightOrGrey(process: Process, random: Random): number[] {
  const values = randomValues(process, random);
  if (!drivenByLight(process))
    return values.map((value, ink) => value * (process.channels[ink].kind === 'black' ? 0.4 : 0.6));
  const level = random.uniform();
  return values.map((value) => Math.min(1, Math.max(0, level + 0.16 * (value - 0.5))));
}
