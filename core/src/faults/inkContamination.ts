import { channelCount } from '../device/process.ts';
import type { Process } from '../device/process.ts';

/** How far the tints of single inks depart from mixtures of paper and solid, by channel; NaN where no ramp is. */
export interface ContaminationEvidence {
  readonly byInk: readonly number[];
  /** Mean of the inks that could be judged. */
  readonly mean: number;
}

/** Yule-Nielsen factors tried; the best explains what a clean ramp does. */
const FACTORS = [1.3, 1.7, 2.2, 3, 4.5];
const LEAST_TINTS = 4;

/**
 * A ramp of one ink is a mixture of its solid and the paper at each wavelength; where a conversion put other inks into
 * it, the tints leave that line. Departures are root mean squares over tints and bands, as a share of the solid's
 * distance from paper.
 * @param device row-major × channel.
 * @param bands reflectance factors or XYZ over white, row-major × `width`.
 */
export function inkContamination(
  process: Process,
  device: Float64Array,
  bands: Float64Array,
  width: number,
): ContaminationEvidence | undefined {
  const channels = channelCount(process);
  const count = device.length / channels;
  const papers: number[] = [];
  const byInk: { solids: number[]; tints: number[] }[] = process.channels.map(() => ({
    solids: [],
    tints: [],
  }));
  for (let i = 0; i < count; i++) {
    const values = device.subarray(channels * i, channels * (i + 1));
    const inks = [...values.keys()].filter((c) => values[c] > 1e-6);
    if (inks.length === 0) papers.push(i);
    if (inks.length !== 1) continue;
    if (values[inks[0]] > 0.995) byInk[inks[0]].solids.push(i);
    else byInk[inks[0]].tints.push(i);
  }
  if (papers.length === 0) return undefined;
  const mean = (rows: readonly number[]): Float64Array => {
    const out = new Float64Array(width);
    for (const row of rows) for (let b = 0; b < width; b++) out[b] += bands[row * width + b] / rows.length;
    return out;
  };
  const paper = mean(papers);
  const departures = byInk.map(({ solids, tints }) => {
    if (solids.length === 0 || tints.length < LEAST_TINTS) return NaN;
    const solid = mean(solids);
    return Math.min(...FACTORS.map((n) => departure(tints, bands, width, paper, solid, n)));
  });
  const judged = departures.filter(Number.isFinite);
  if (judged.length === 0) return undefined;
  return { byInk: departures, mean: judged.reduce((a, b) => a + b, 0) / judged.length };
}

function departure(
  tints: readonly number[],
  bands: Float64Array,
  width: number,
  paper: Float64Array,
  solid: Float64Array,
  n: number,
): number {
  const root = (value: number): number => Math.max(1e-4, value) ** (1 / n);
  const base = paper.map(root);
  const direction = solid.map((value, b) => root(value) - base[b]);
  const length = direction.reduce((sum, value) => sum + value * value, 0);
  let total = 0;
  for (const row of tints) {
    let along = 0;
    const own = new Float64Array(width);
    for (let b = 0; b < width; b++) {
      own[b] = root(bands[row * width + b]) - base[b];
      along += own[b] * direction[b];
    }
    const area = along / length;
    for (let b = 0; b < width; b++) total += (own[b] - area * direction[b]) ** 2;
  }
  return Math.sqrt(total / tints.length / length);
}
