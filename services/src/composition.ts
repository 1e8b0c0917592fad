import { readUpload } from '@melto/paper/readUpload';
import type { UploadTask } from '@melto/paper/readUpload';
import { drawFile } from '@melto/paper/report/drawFile';
import { openDatabase } from '@melto/store/database';
import { insertDevice, insertStock } from '@melto/store/devices';
import { registerPublishedAims } from './conformity/aimSets.ts';
import { registerShippedTolerances } from './conformity/toleranceSets.ts';
import type { Context, Drivers } from './kernel/context.ts';
import { KeptCache } from './kernel/keptCache.ts';
import { Problem } from './kernel/problem.ts';
import { seedSource } from './kernel/seedSource.ts';
import { SIMULATED_DRIVERS } from './simulated/simulatedDrivers.ts';

/** A house whose simulator is left out: what would stand in its place says so. */
const NO_DRIVERS: Drivers = {
  printPath: {
    print: () => {
      throw new Problem('not-ready', 'No driver of this device is installed.', 'Print its pages by hand.');
    },
  },
  under: undefined,
  catalogue: [],
  press: undefined,
  circumstances: async () => [],
};

/** Puts the application together over the database of `url`; the only place that chooses the drivers. */
export function composeServices(
  url: string,
  given: Partial<Pick<Context, 'now' | 'seed' | 'drawFile' | 'readUpload' | 'workIntent'>> & {
    readonly simulated?: boolean;
  } = {},
): Context {
  const { simulated = true, ...own } = given;
  return {
    database: openDatabase(url),
    cache: new KeptCache(),
    ...(simulated ? SIMULATED_DRIVERS : NO_DRIVERS),
    now: Date.now,
    seed: seedSource(undefined, 'house'),
    drawFile,
    readUpload: (async (task: UploadTask) => readUpload(task)) as Context['readUpload'],
    workIntent: undefined,
    ...own,
  };
}

/**
 * Makes the devices and stocks of the drivers, the shipped tolerance sets and the published aims known to
 * the house. @param characterisations CGATS text of published conditions that are on this machine, by key.
 */
export async function registerDrivers(
  context: Context,
  characterisations?: ReadonlyMap<string, string>,
): Promise<void> {
  const { database, now } = context;
  for (const device of context.catalogue) {
    const { name, code, kind, process, id } = device;
    await insertDevice(database, { name, code, kind, process, driver: id }, now());
    for (const stock of device.stocks) {
      const { name: stockName, finish, restMinutes } = stock;
      await insertStock(database, { name: stockName, finish, restMinutes, driver: stock.id }, now());
    }
  }
  await registerShippedTolerances(context);
  await registerPublishedAims(context, characterisations);
}
