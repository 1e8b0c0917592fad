import type { ColourBar } from '@melto/core/press/colourBar';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { readPressSheet } from './pressRun.ts';
import type { KeyMove, SimulatedRun } from './pressRun.ts';

/** A run as a server tells it: the press as text, and what was done to it. */
export interface PressUnder {
  readonly simulated: string;
  readonly bar: ColourBar;
  readonly mode: MeasurementMode;
  readonly moves: readonly KeyMove[];
}

/** What a run’s press is like, as text that nothing else reads. */
export function encodePress(run: Omit<SimulatedRun, 'bar'>): string {
  return JSON.stringify(run);
}

/** The bar of a sheet as a sensor over it delivers it: by patch numbers, without those that it missed. */
export function senseSheet({ simulated, bar, mode, moves }: PressUnder, impression: number): IncomingSheet {
  const run: SimulatedRun = { ...(JSON.parse(simulated) as Omit<SimulatedRun, 'bar'>), bar };
  const spectra = readPressSheet(run, moves, impression, mode);
  const bands = GRID_380_730_10.count;
  return {
    impression,
    grid: GRID_380_730_10,
    patches: bar.patches.flatMap((_, at) => {
      // As many digits as instruments tell.
      const spectrum = Array.from(
        spectra.subarray(at * bands, (at + 1) * bands),
        (value) => Math.round(value * 1e5) / 1e5,
      );
      return Number.isFinite(spectrum[0]) ? [{ patch: at + 1, spectrum }] : [];
    }),
  };
}
