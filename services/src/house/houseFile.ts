import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import type { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { migrate } from '@melto/store/migrate';
import { openDatabase } from '@melto/store/database';
import { answeringNode } from '@melto/store/databaseNodes';
import { dropTables, isRun, isUsed, migrationsKnown, migrationsRun, tableNames } from '@melto/store/schema';
import { Problem } from '../kernel/problem.ts';
import { checkHouseFile, damaged, FORMAT, framed, readHouse } from './houseFormat.ts';
import type { HouseHead } from './houseFormat.ts';

const PACKET = '--max-allowed-packet=256M';
/** A runner that was heard of since then works on the database. */
const RUNS_MS = 10_000;

/** Arguments of MariaDB's own programs for an address; the password goes by the environment, which others cannot list. */
function client(url: string): {
  readonly args: string[];
  readonly database: string;
  readonly env: NodeJS.ProcessEnv;
} {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [
      '--no-defaults',
      '-h',
      hostname,
      '-P',
      port === '' ? '3306' : port,
      '-u',
      decodeURIComponent(username),
    ],
    database: decodeURIComponent(pathname.slice(1)),
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
  };
}

/** Ends well with code 0; else says what the program said. */
function ended(child: ChildProcess, name: string): Promise<void> {
  let said = '';
  child.stderr?.on('data', (text: Buffer) => (said = `${said}${text.toString()}`.slice(-2000)));
  return new Promise((resolve, reject) => {
    child.once('error', (error) => reject(new Error(`${name} cannot be started: ${error.message}`)));
    child.once('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`${name} ended with ${code ?? 'a signal'}: ${said.trim()}`)),
    );
  });
}

/**
 * Saves the whole database as it is at one moment, while others go on writing.
 * @param file is there only once it is whole.
 */
export async function saveHouse(url: string, file: string, nowMs = Date.now()): Promise<HouseHead> {
  const { args, database, env } = client(await answeringNode(url));
  const own = openDatabase(url);
  const migrations = await migrationsRun(own).finally(() => own.close());
  const head: HouseHead = { format: FORMAT, madeAt: new Date(nowMs).toISOString(), migrations };
  const part = `${file}.part`;
  // Whoever saves to the same file at the same time is refused, and does not mix with this one.
  await (await open(part, 'wx')).close();
  try {
    const dump = spawn(
      'mariadb-dump',
      [
        ...args,
        PACKET,
        '--single-transaction',
        '--hex-blob',
        '--no-tablespaces',
        '--skip-comments',
        database,
      ],
      { env, stdio: ['ignore', 'pipe', 'pipe'] },
    );
    await Promise.all([
      ended(dump, 'mariadb-dump'),
      pipeline(dump.stdout, framed(head), createGzip({ level: 6 }), createWriteStream(part)),
    ]);
    await rename(part, file);
    return head;
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

/**
 * Puts a saved house into a database that nobody has used, and brings it up to this version.
 * @param migrations folder of those that this version knows.
 */
export async function restoreHouse(
  url: string,
  file: string,
  migrations: string,
  nowMs = Date.now(),
): Promise<HouseHead & { readonly migrated: readonly string[] }> {
  // Read to its end before anything is touched.
  const head = await checkHouseFile(file);
  const unknown = head.migrations.filter((name) => !migrationsKnown(migrations).includes(name));
  if (unknown.length > 0)
    throw new Problem(
      'bad-input',
      `${file} is of a newer version of Melto: it has ${unknown[0]}.`,
      'Nothing was changed. Restore it with that version, or a newer one.',
    );
  const database = openDatabase(url);
  try {
    if (await isRun(database, nowMs - RUNS_MS))
      throw new Problem(
        'conflict',
        'Melto is running on this database.',
        'Stop it before; nothing was changed.',
      );
    if (await isUsed(database))
      throw new Problem(
        'conflict',
        'This database has a house that is in use.',
        'Nothing was changed. Restore into an empty one: another folder, or another MELTO_DATABASE_URL.',
      );
    await database.transaction((sql) => dropTables(sql));
    await readHouse(file, (sql) => run(url, sql));
    const left = await tableNames(database);
    if (left.length === 0) throw damaged(file, 'it has no tables');
    return { ...head, migrated: await migrate(database, migrations) };
  } finally {
    await database.close();
  }
}

/** Has MariaDB's own client run what comes. */
async function run(url: string, sql: Readable): Promise<void> {
  const { args, database, env } = client(await answeringNode(url));
  const child = spawn('mariadb', [...args, PACKET, '--default-character-set=utf8mb4', database], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  await Promise.all([ended(child, 'mariadb'), pipeline(sql, child.stdin as Writable)]);
}
