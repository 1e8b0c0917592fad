import { randomInt } from 'node:crypto';
import { CATALOGUE } from '@melto/simulator/catalogue';
import { createStripReader } from '@melto/simulator/instruments/stripReader';
import { simulatedPrintPath } from '@melto/simulator/simulatedPrintPath';
import { openDatabase } from '@melto/store/database';
import { insertDevice, insertInstrument, insertStock } from '@melto/store/devices';
import type { Services } from './context.ts';

const STRIP_READER = { driver: 'strip-reader-2', name: 'Strip reader 2' } as const;

/** Puts the application together over the database of `url`; the only place that knows the simulator. */
export function composeServices(
  url: string,
  now: () => number = Date.now,
  seed: () => number = () => randomInt(1, 2 ** 31),
): Services {
  return {
    database: openDatabase(url),
    printPath: simulatedPrintPath,
    instruments: new Map([[STRIP_READER.driver, createStripReader(STRIP_READER.driver, STRIP_READER.name)]]),
    catalogue: CATALOGUE,
    now,
    seed,
  };
}

/** Makes the devices, stocks and instruments of the drivers known to the database. */
export async function registerDrivers(services: Services): Promise<void> {
  const { database, now } = services;
  for (const device of services.catalogue) {
    const { name, code, kind, space, id } = device;
    await insertDevice(database, { name, code, kind, space, driver: id }, now());
    for (const stock of device.stocks) {
      const { name: stockName, finish, restMinutes } = stock;
      await insertStock(database, { name: stockName, finish, restMinutes, driver: stock.id }, now());
    }
  }
  await insertInstrument(database, STRIP_READER.name, STRIP_READER.driver);
}
