import { composeServices } from '@melto/services/composition';
import { verifyHouse } from '@melto/services/overview/verifyHouse';

// Entry of `./melto house verify`: computes every result again that follows from readings, and says which differ.
const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const context = composeServices(url);
try {
  const results = await verifyHouse(context, ({ what, outcome, why }) =>
    console.log(`${outcome.padEnd(18)} ${what}${why === '' ? '' : `: ${why}`}`),
  );
  const count = (wanted: string): number => results.filter(({ outcome }) => outcome === wanted).length;
  console.log(
    `${count('equal')} equal, ${count('differs')} differ, ${count('not computed again')} not computed again`,
  );
  if (count('differs') > 0) process.exitCode = 1;
} finally {
  await context.database.close();
}
