import type { Instrument } from '@melto/core/device/instrument';
import { createSheetReader, createSpotReader, createStripReader } from './stripReader.ts';

/** The instruments of the sample house, the hand-held strip reader first. */
export const SIMULATED_INSTRUMENTS: readonly Instrument[] = [
  createStripReader('strip-reader-2', 'Strip reader 2'),
  createSpotReader('spot-reader-1', 'Spot reader 1'),
  createSheetReader('sheet-reader-1', 'Sheet reader 1'),
];
