import { CATALOGUE } from '@melto/simulator/catalogue';
import {
  createSheetReader,
  createSpotReader,
  createStripReader,
} from '@melto/simulator/instruments/stripReader';
import { simulatedPrintPath } from '@melto/simulator/simulatedPrintPath';
import type { Drivers } from '../kernel/context.ts';
import { simulatedChanges } from './simulatedChanges.ts';

/** The instruments of the sample house, the hand-held strip reader first. */
const INSTRUMENTS = [
  createStripReader('strip-reader-2', 'Strip reader 2'),
  createSpotReader('spot-reader-1', 'Spot reader 1'),
  createSheetReader('sheet-reader-1', 'Sheet reader 1'),
];

/** Simulated devices and instruments in the place of hardware. */
export const SIMULATED_DRIVERS: Drivers = {
  printPath: simulatedPrintPath,
  instruments: new Map(INSTRUMENTS.map((instrument) => [instrument.id, instrument])),
  catalogue: CATALOGUE,
  circumstances: simulatedChanges,
};
