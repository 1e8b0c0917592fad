import { join } from 'node:path';
import { installedCharacterisations } from '@melto/paper/measured/installedCharacterisations';
import { countConditions } from '@melto/store/conditions';
import { migrate } from '@melto/store/migrate';
import { composeServices, registerDrivers } from '../composition.ts';
import { requestSampleHouse } from '../simulated/sampleHouse.ts';

// Entry of `./start`: brings the schema up to date and asks for the sample house where the database is empty.
const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const context = composeServices(url);
try {
  const run = await migrate(
    context.database,
    join(process.env['MELTO_ROOT'] ?? process.cwd(), 'store/migrations'),
  );
  for (const name of run) console.log(`migrated ${name}`);
  await registerDrivers(context, installedCharacterisations());
  if (process.argv.includes('--sample-house') && (await countConditions(context.database)) === 0)
    await requestSampleHouse(context);
} finally {
  await context.database.close();
}
