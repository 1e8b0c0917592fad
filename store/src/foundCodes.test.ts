import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openDatabase } from './database.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';
import { searchSheets } from './prints.ts';
import { listNewestReadings, searchReadings } from './readings.ts';

const NAME = 'melto_codes';
/** Prints of two conditions, one sheet and one reading each. */
const PRINTS = 4000;
let database: Database;

beforeAll(async () => {
  const url = process.env['MELTO_TEST_DATABASE_URL'] ?? '';
  const admin = openDatabase(url);
  await admin.change(`DROP DATABASE IF EXISTS ${NAME}`);
  await admin.change(`CREATE DATABASE ${NAME}`);
  await admin.close();
  database = openDatabase(url.replace(/\/[^/]*$/, `/${NAME}`));
  await migrate(database, join(import.meta.dirname, '../migrations'));
  await database.transaction(async (sql) => {
    // What they refer to does not exist, and what is not looked at is left out.
    await sql.change("SET FOREIGN_KEY_CHECKS = 0, sql_mode = ''");
    await sql.change(
      "INSERT INTO chart (id, house_id, condition_id, purpose, title) VALUES (1, 1, 1, 'profile', 'Chart'), (2, 1, 1, 'wedge', 'Wedge')",
    );
    await sql.change(
      `INSERT INTO print (id, house_id, condition_id, chart_id, code)
       SELECT seq, 1, 1 + seq % 2, IF(seq > 3998, 2, 1), CONCAT('WRN-', LPAD(seq, 4, '0')) FROM seq_1_to_${PRINTS}`,
    );
    await sql.change(
      `INSERT INTO sheet (id, house_id, print_id, page, code) SELECT seq, 1, seq, 1, CONCAT('WRN-', LPAD(seq, 4, '0'), '-1') FROM seq_1_to_${PRINTS}`,
    );
    await sql.change(
      `INSERT INTO reading (id, house_id, print_id, source, mode, started_ms, author_id) SELECT seq, 1, seq, 'desk', 'M1', 0, 1 FROM seq_1_to_${PRINTS}`,
    );
  });
});
afterAll(() => database.close());

it('codes are found by how they begin however old, and by any part where they are of the newest 3,000', async () => {
  const codes = async (text: string): Promise<string[]> =>
    (await searchSheets(database, text, 8)).map(({ code }) => code);
  expect(await codes('wrn-0007')).toEqual(['WRN-0007-1']);
  expect(await codes('1001')).toEqual(['WRN-1001-1']);
  expect(await codes('1000')).toEqual([]);
  expect(await codes('wrn-1000')).toEqual(['WRN-1000-1']);
  expect(await codes('wrn-40')).toEqual(['WRN-4000-1']);
  // No pattern of its own.
  expect(await codes('wrn%7')).toEqual([]);
  expect((await searchReadings(database, 'wrn-0007', 8)).map(({ id }) => id)).toEqual([7]);
  expect((await searchReadings(database, '3999', 8)).map(({ code }) => code)).toEqual(['WRN-3999']);
  const other = database.as({ house: 2, person: 1 });
  expect([await searchSheets(other, 'wrn', 8), await searchReadings(other, '3999', 8)]).toEqual([[], []]);
});

it('the newest reading of some purposes stands for its condition, but for those that were withdrawn', async () => {
  const newest = async (...purposes: Parameters<typeof listNewestReadings>[1]): Promise<number[]> =>
    (await listNewestReadings(database, purposes)).map(({ id }) => id).sort((a, b) => a - b);
  expect(await newest('profile')).toEqual([3997, 3998]);
  expect(await newest('profile', 'wedge')).toEqual([3999, 4000]);
  await database.change('UPDATE reading SET withdrawn_ms = 1 WHERE id IN (4000, 3998)');
  expect(await newest('profile')).toEqual([3996, 3997]);
  expect(await newest('profile', 'wedge')).toEqual([3996, 3999]);
});
