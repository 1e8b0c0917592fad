import { CATALOGUE } from '@melto/simulator/catalogue';
import {
  createSheetReader,
  createSpotReader,
  createStripReader,
} from '@melto/simulator/instruments/stripReader';
import { simulatedPrintPath } from '@melto/simulator/simulatedPrintPath';
import { openDatabase } from '@melto/store/database';
import { insertDevice, insertInstrument, insertStock } from '@melto/store/devices';
import { registerPublishedAims } from './conformity/aimSets.ts';
import { drawPdf } from '@melto/paper/report/drawPdf';
import type { Services } from './kernel/context.ts';
import { seedSource } from './kernel/seedSource.ts';
import { registerShippedTolerances } from './conformity/toleranceSets.ts';

/** The instruments of the house, the hand-held strip reader first. */
const INSTRUMENTS = [
  createStripReader('strip-reader-2', 'Strip reader 2'),
  createSpotReader('spot-reader-1', 'Spot reader 1'),
  createSheetReader('sheet-reader-1', 'Sheet reader 1'),
];

/** Puts the application together over the database of `url`; the only place that knows the simulator. */
export function composeServices(
  url: string,
  given: Partial<Pick<Services, 'now' | 'seed' | 'drawPdf'>> = {},
): Services {
  return {
    database: openDatabase(url),
    printPath: simulatedPrintPath,
    instruments: new Map(INSTRUMENTS.map((instrument) => [instrument.id, instrument])),
    catalogue: CATALOGUE,
    now: Date.now,
    seed: seedSource(undefined, 'house'),
    drawPdf,
    ...given,
  };
}

/**
 * Makes the devices, stocks and instruments of the drivers, the shipped tolerance sets and the published aims known to
 * the database. @param characterisations CGATS text of published conditions that are on this machine, by key.
 */
export async function registerDrivers(
  services: Services,
  characterisations?: ReadonlyMap<string, string>,
): Promise<void> {
  const { database, now } = services;
  for (const device of services.catalogue) {
    const { name, code, kind, space, id } = device;
    await insertDevice(database, { name, code, kind, space, driver: id }, now());
    for (const stock of device.stocks) {
      const { name: stockName, finish, restMinutes } = stock;
      await insertStock(database, { name: stockName, finish, restMinutes, driver: stock.id }, now());
    }
  }
  for (const { name, id } of INSTRUMENTS) await insertInstrument(database, name, id);
  await registerShippedTolerances(services);
  await registerPublishedAims(services, characterisations);
}
