import { join } from 'node:path';
import { migrate } from '@melto/store/migrate';
import { insertJob, listJobs } from '@melto/store/jobs';
import { listConditions } from '@melto/store/conditions';
import { composeServices, registerDrivers } from '../composition.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import { installedCharacterisations } from './installedCharacterisations.ts';

// Entry of `./start`: brings the schema up to date and asks for the sample house where the database is empty.
const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const services = composeServices(url);
try {
  const run = await migrate(
    services.database,
    join(process.env['MELTO_ROOT'] ?? process.cwd(), 'store/migrations'),
  );
  for (const name of run) console.log(`migrated ${name}`);
  await registerDrivers(services, installedCharacterisations());
  if (process.argv.includes('--sample-house')) {
    const empty = (await listConditions(services.database)).length === 0;
    const waiting = (await listJobs(services.database, services.now())).some(
      ({ kind }) => kind === 'sample-house',
    );
    if (empty && !waiting)
      await insertJob(
        services.database,
        { kind: 'sample-house', conditionId: null, input: {} },
        LOCAL_PERSON,
        services.now(),
      );
  }
} finally {
  await services.database.close();
}
