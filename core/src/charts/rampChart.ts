import { PROCESS_INKS } from '../tone/toneMeasure.ts';
import type { NamedPatches } from './namedPatches.ts';
import { eightBit, pushPatch } from './namedPatches.ts';

export const RAMP_STEPS = { least: 5, most: 64 } as const;
/** Total ink of the overprint series: black full, C, M, Y alike. */
const SERIES = { from: 2, to: 4, step: 0.1 } as const;
const PAPERS = 4;

export interface RampChoices {
  /** Steps from paper to solid, both counted. */
  readonly steps: number;
  /** With overprints of 200 to 400 % for the total ink limit. */
  readonly totalInk: boolean;
}

/** Single-ink ramps of C, M, Y, K, papers and, if asked for, the total-ink series; one copy, 8-bit levels. */
export function makeRampChart({ steps, totalInk }: RampChoices): NamedPatches {
  if (!Number.isInteger(steps) || steps < RAMP_STEPS.least || steps > RAMP_STEPS.most)
    throw new RangeError(`${steps} steps, expected ${RAMP_STEPS.least} to ${RAMP_STEPS.most}`);
  const device: number[] = [];
  const names: string[] = [];
  for (let i = 0; i < PAPERS; i++) pushPatch(device, names, [0, 0, 0, 0], 'paper');
  PROCESS_INKS.forEach((ink, channel) => {
    for (let step = 1; step < steps; step++) {
      const values = [0, 0, 0, 0];
      values[channel] = eightBit(step / (steps - 1));
      pushPatch(device, names, values, `${ink} ${(values[channel] * 100).toFixed(0)}`);
    }
  });
  if (totalInk)
    for (let total = SERIES.from; total < SERIES.to + 1e-9; total += SERIES.step) {
      const chromatic = eightBit((total - 1) / 3);
      pushPatch(device, names, [chromatic, chromatic, chromatic, 1], `total ${(total * 100).toFixed(0)}`);
    }
  return { device: Float64Array.from(device), names };
}
