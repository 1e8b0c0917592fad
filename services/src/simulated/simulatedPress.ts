import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { SIMULATED_DEVICES } from '@melto/simulator/devices';
import { readPressSheet } from '@melto/simulator/pressRun';
import type { SimulatedRun } from '@melto/simulator/pressRun';
import type { PressSimulation } from '../kernel/context.ts';

/** How far keys are off when a run begins, as a share of density. */
const UNEVEN_START = 0.1;
/** Share of patches that the sensor over the sheet misses. */
const MISSING = 0.004;

/** How far inks wander over a run, as a share of density. */
const WANDER = 0.02;

/** The press of the sample world, which is run impression by impression. */
export const SIMULATED_PRESS: PressSimulation = {
  begin({ device, stock, mode, seed, inks, curves }) {
    const press = SIMULATED_DEVICES.find(({ id, modes }) => id === device && modes.includes(mode));
    const channels = inks.map((ink) => PROCESS_INKS.indexOf(ink));
    // Only presses with zones have keys to move, and none of them prints spot colours.
    if (press === undefined || press.printer.evenness.every(({ zones }) => zones.length === 0)) return null;
    if (channels.some((channel) => channel < 0)) return null;
    const state: Omit<SimulatedRun, 'bar'> = {
      ...{ device, mode, seed, channels, unevenStart: UNEVEN_START, missing: MISSING, wander: WANDER },
      curves: curves?.map((curve) => Array.from(curve, (value) => Math.round(value * 1e5) / 1e5)),
      stock: stock as SimulatedRun['stock'],
    };
    return JSON.stringify(state);
  },
  read({ simulated, bar, moves, mode, impression }) {
    const run: SimulatedRun = { ...(JSON.parse(simulated) as Omit<SimulatedRun, 'bar'>), bar };
    const spectra = readPressSheet(run, moves, impression, mode);
    const bands = GRID_380_730_10.count;
    return {
      impression,
      grid: GRID_380_730_10,
      patches: bar.patches.flatMap((_, at) => {
        const spectrum = [...spectra.subarray(at * bands, (at + 1) * bands)];
        return Number.isFinite(spectrum[0]) ? [{ patch: at + 1, spectrum }] : [];
      }),
    };
  },
};
