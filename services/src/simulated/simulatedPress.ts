import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import { SIMULATED_DEVICES } from '@melto/simulator/devices';
import { encodePress, senseSheet } from '@melto/simulator/pressSensor';
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
    return encodePress({
      ...{ device, mode, seed, channels, unevenStart: UNEVEN_START, missing: MISSING, wander: WANDER },
      curves: curves?.map((curve) => Array.from(curve, (value) => Math.round(value * 1e5) / 1e5)),
      stock: stock as SimulatedRun['stock'],
    });
  },
  read: ({ impression, ...under }) => senseSheet(under, impression),
};
