import { SIMULATED_PRESS } from './simulatedPress.ts';
import { CATALOGUE } from '@melto/simulator/catalogue';
import { encodeUnder } from '@melto/simulator/instruments/underInstrument';
import { simulatedPrintPath } from '@melto/simulator/simulatedPrintPath';
import type { Drivers } from '../kernel/context.ts';
import { simulatedChanges } from './simulatedChanges.ts';

/** Simulated devices in the place of hardware, and what their sheets are to simulated instruments. */
export const SIMULATED_DRIVERS: Drivers = {
  press: SIMULATED_PRESS,
  printPath: simulatedPrintPath,
  under: encodeUnder,
  catalogue: CATALOGUE,
  circumstances: simulatedChanges,
};
