import { baseInks } from '../device/baseInks.ts';
import { bareValues, blackChannel, drivenByInks } from '../device/process.ts';
import type { Process } from '../device/process.ts';
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

/**
 * Single-ink ramps, papers and, if asked for, the total-ink series; one copy, 8-bit levels. The series raises C, M and
 * Y alike beside full black; where they are not all there, all chromatic inks beside black, where there is one.
 */
export function makeRampChart(process: Process, { steps, totalInk }: RampChoices): NamedPatches {
  if (!drivenByInks(process)) throw new RangeError(`ramps of inks, found ${process.name}`);
  if (!Number.isInteger(steps) || steps < RAMP_STEPS.least || steps > RAMP_STEPS.most)
    throw new RangeError(`${steps} steps, expected ${RAMP_STEPS.least} to ${RAMP_STEPS.most}`);
  const device: number[] = [];
  const names: string[] = [];
  for (let i = 0; i < PAPERS; i++) pushPatch(device, names, bareValues(process), 'paper');
  process.channels.forEach(({ name: ink }, channel) => {
    for (let step = 1; step < steps; step++) {
      const values = [...bareValues(process)];
      const level = eightBit(step / (steps - 1));
      values[channel] = level;
      pushPatch(device, names, values, `${ink} ${(level * 100).toFixed(0)}`);
    }
  });
  const black = blackChannel(process);
  const raised =
    baseInks(process)?.base ?? [...process.channels.keys()].filter((channel) => channel !== black);
  const base = black === undefined ? 0 : 1;
  if (totalInk && raised.length > 0)
    for (let total = SERIES.from; total < SERIES.to + 1e-9; total += SERIES.step) {
      const chromatic = eightBit((total - base) / raised.length);
      const values = process.channels.map((_, channel) =>
        channel === black ? 1 : raised.includes(channel) ? chromatic : 0,
      );
      pushPatch(device, names, values, `total ${(total * 100).toFixed(0)}`);
    }
  return { device: Float64Array.from(device), names };
}
