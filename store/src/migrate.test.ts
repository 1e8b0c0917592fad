import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from './database.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';

const URL_OF_TESTS = process.env['MELTO_TEST_DATABASE_URL'] ?? '';
const MIGRATIONS = join(import.meta.dirname, '../migrations');
let admin: Database;
let folder = '';
const opened: Database[] = [];

beforeAll(() => {
  admin = openDatabase(URL_OF_TESTS);
  folder = mkdtempSync(join(tmpdir(), 'melto-steps-'));
  writeFileSync(
    join(folder, '0001_a.sql'),
    [
      'CREATE TABLE a (id INT PRIMARY KEY) ENGINE=InnoDB;',
      'INSERT INTO a VALUES (1);',
      'ALTER TABLE a ADD COLUMN more INT NOT NULL DEFAULT 7;',
      'UPDATE a SET more = more + 1;',
      'ALTER TABLE a DROP PRIMARY KEY;',
      'CREATE INDEX of_more ON a (more);',
      '',
    ].join('\n'),
  );
});
afterAll(async () => {
  for (const database of opened) await database.close();
  await admin.close();
  rmSync(folder, { recursive: true });
});

async function schema(name: string): Promise<Database> {
  await admin.change(`DROP DATABASE IF EXISTS ${name}`);
  await admin.change(`CREATE DATABASE ${name}`);
  return open(name);
}

function open(name: string): Database {
  const database = openDatabase(URL_OF_TESTS.replace(/\/[^/]*$/, `/${name}`));
  opened.push(database);
  return database;
}

/** The database of a start that is killed at its nth statement, which is done or is not; what was not confirmed is undone. */
function killedAt(database: Database, nth: number, done: boolean): Database {
  let count = 0;
  return {
    ...database,
    transaction: (work) =>
      database.transaction((sql) =>
        work({
          ...sql,
          change: async (statement, values) => {
            if (++count < nth) return sql.change(statement, values);
            if (count === nth && done) await sql.change(statement, values);
            throw new Error('killed');
          },
        }),
      ),
  };
}

describe('migrations', () => {
  it('go on where they were killed, at whatever statement, done or not', async () => {
    let kills = 0;
    for (const done of [false, true])
      for (let nth = 1; ; nth++) {
        const database = await schema('melto_killed');
        const end = await migrate(killedAt(database, nth, done), folder).then(
          () => 'ended',
          (error: unknown) => String(error),
        );
        if (end === 'ended') break;
        expect(end).toContain('killed');
        kills++;
        await migrate(database, folder);
        expect(await database.rows('SELECT id, more FROM a'), `${nth} ${done}`).toEqual([{ id: 1, more: 8 }]);
        expect(await migrate(database, folder)).toEqual([]);
        await database.close();
        opened.pop();
      }
    expect(kills).toBeGreaterThan(40);
    // A guard against hanging: each kill makes a house anew.
  }, 240_000);

  it('say which statement is wrong, and run it once it is mended', async () => {
    const own = mkdtempSync(join(tmpdir(), 'melto-wrong-'));
    cpSync(folder, own, { recursive: true });
    writeFileSync(join(own, '0002_b.sql'), 'CREATE TABLE b (id INT);\nCREATE TABLE a (id INT);\n');
    const database = await schema('melto_wrong');
    // A table that is there already is a fault, unless this very step was begun before.
    await expect(migrate(database, own)).rejects.toThrow('0002_b.sql, statement 2');
    writeFileSync(join(own, '0002_b.sql'), 'CREATE TABLE b (id INT);\nCREATE TABLE c (id INT);\n');
    expect(await migrate(database, own)).toEqual(['0002_b.sql']);
    expect(await database.rows('SELECT * FROM c')).toEqual([]);
    rmSync(own, { recursive: true });
  });

  it('of starts at once run once: the others wait and find them done', async () => {
    await schema('melto_starts');
    const starts = await Promise.all([1, 2, 3, 4].map(() => migrate(open('melto_starts'), MIGRATIONS)));
    const [all, ...none] = [...starts].sort((a, b) => b.length - a.length);
    expect(all.length).toBeGreaterThan(3);
    expect(none).toEqual([[], [], []]);
  });
});
