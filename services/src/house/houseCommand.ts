import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Problem } from '../kernel/problem.ts';
import { composeServices } from '../composition.ts';
import { people, givePassphrase } from '../people/people.ts';
import { restoreHouse, saveHouse } from './houseFile.ts';
import { checkHouseFile } from './houseFormat.ts';

// Entry of `./melto house`: saves, checks and restores the whole house.
const url = process.env['MELTO_DATABASE_URL'];
const migrations = join(process.env['MELTO_ROOT'] ?? process.cwd(), 'store/migrations');
const [act, file, ...more] = process.argv.slice(2);
const day = (iso: string): string => iso.replace('T', ' ').slice(0, 16);

async function house(): Promise<string> {
  if (
    file === undefined ||
    more.length > 0 ||
    !['save', 'check', 'restore', 'passphrase'].includes(act ?? '')
  )
    throw new Problem(
      'bad-input',
      'Say what to do with which file.',
      './melto house save, check or restore FILE, ./melto house leave FOLDER, passphrase NAME, or verify',
    );
  if (act === 'check') {
    const { madeAt, migrations: run } = await checkHouseFile(file);
    return `${file} is whole: a house of ${day(madeAt)} UTC, ${run.length} migrations.`;
  }
  if (url === undefined)
    throw new Problem('not-ready', 'MELTO_DATABASE_URL is not set.', 'Say which database.');
  if (act === 'passphrase') return newPassphrase(url, file);
  if (act === 'save') {
    if (existsSync(file))
      throw new Problem('conflict', `${file} is there already.`, 'Nothing was changed. Give another name.');
    await saveHouse(url, file);
    await checkHouseFile(file);
    return `${file}: the whole house, read once more and whole.`;
  }
  const { madeAt, migrated } = await restoreHouse(url, file, migrations);
  return `The house of ${day(madeAt)} UTC is restored${migrated.length === 0 ? '' : `, and brought up to this version by ${migrated.join(', ')}`}.`;
}

/** For whoever has lost theirs, and for a keeper whom nobody can give one. */
async function newPassphrase(address: string, name: string): Promise<string> {
  const context = composeServices(address);
  try {
    const found = (await people(context)).find((person) => person.name === name);
    if (found === undefined)
      throw new Problem(
        'not-found',
        `Nobody is called ${name}.`,
        'Write the name as it stands under People.',
      );
    const { passphrase } = await givePassphrase(context, found.id);
    return `${passphrase}\nThis is the passphrase of ${name} until they choose their own; everywhere they are signed out.`;
  } finally {
    await context.database.close();
  }
}

try {
  console.log(await house());
} catch (error) {
  const problem = error instanceof Problem;
  console.error(
    `melto: ${problem ? `${error.title} ${error.detail}` : error instanceof Error ? error.message : String(error)}`,
  );
  process.exitCode = problem ? 2 : 1;
}
