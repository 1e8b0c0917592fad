import { join } from 'node:path';
import { migrate } from '@melto/store/migrate';
import { setSample } from '@melto/store/houses';
import { openDatabase } from '@melto/store/database';
import { composeServices, registerDrivers } from '../composition.ts';
import type { Context } from '../kernel/context.ts';

/** Context over an empty schema of their own, with a clock and a seed that tests set. */
export interface TestServices extends Context {
  /** Real time that `now` gives. */
  readonly time: { ms: number };
}

export async function openTestServices(
  name: string,
  { simulated = true }: { readonly simulated?: boolean } = {},
): Promise<TestServices> {
  const url = process.env['MELTO_TEST_DATABASE_URL'];
  if (url === undefined)
    throw new Error(
      'MELTO_TEST_DATABASE_URL is not set: run ./test, or scripts/withTestDatabase.sh before the runner',
    );
  const admin = openDatabase(url);
  await admin.change(`DROP DATABASE IF EXISTS ${name}`);
  await admin.change(`CREATE DATABASE ${name}`);
  await admin.close();
  const time = { ms: Date.UTC(2026, 2, 14, 9) };
  let seed = 100;
  const context = composeServices(url.replace(/\/[^/]*$/, `/${name}`), {
    now: () => time.ms,
    seed: () => seed++,
    simulated,
  });
  await migrate(context.database, join(import.meta.dirname, '../../../store/migrations'));
  await registerDrivers(context);
  // Its clock may be moved.
  await setSample(context.database, true);
  return { ...context, time };
}
