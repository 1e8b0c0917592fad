import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '@melto/store/database';
import { keepProfile } from '@melto/store/keptProfiles';
import { migrate } from '@melto/store/migrate';
import { migrationsKnown, tableChecksums, tableNames } from '@melto/store/schema';
import { copiesToForget, copyName, copyTime, keepCopies } from '../src/house/copies.ts';
import { restoreHouse, saveHouse } from '../src/house/houseFile.ts';
import { checkHouseFile } from '../src/house/houseFormat.ts';
import { Problem } from '../src/kernel/problem.ts';
import { recordAct } from '../src/people/acts.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const MIGRATIONS = join(import.meta.dirname, '../../store/migrations');
const DAY = 86_400_000;
let folder = '';
let services: TestServices;
const admin = (): string => process.env['MELTO_TEST_DATABASE_URL'] ?? '';
const urlOf = (name: string): string => admin().replace(/\/[^/]*$/, `/${name}`);
const fileOf = (name: string): string => join(folder, name);

/** An empty schema. */
async function emptied(name: string): Promise<string> {
  const database = openDatabase(admin());
  await database.change(`DROP DATABASE IF EXISTS ${name}`);
  await database.change(`CREATE DATABASE ${name}`);
  await database.close();
  return urlOf(name);
}

/** What stands in a schema: rows and checksum of each table. */
async function standing(url: string) {
  const database = openDatabase(url);
  try {
    return await tableChecksums(database);
  } finally {
    await database.close();
  }
}

async function refusal(work: Promise<unknown>): Promise<string> {
  const error: unknown = await work.then(
    () => undefined,
    (thrown: unknown) => thrown,
  );
  if (error instanceof Problem) return error.title;
  throw new Error(`no refusal: ${String(error)}`);
}

/** A profile of all byte values, and the act that keeps it, in one unit of work. */
const keep = (i: number): Promise<void> =>
  services.database.transaction(async (database) => {
    const content = Uint8Array.from({ length: 3000 + i }, (_, at) => (at * 7 + i) % 256);
    const digest = Uint8Array.from({ length: 32 }, (_, at) => (at * i + 3 * i + at) % 251);
    await keepProfile(
      database,
      { name: `Größe „${i}“ \\ ' \u0000 🙂`, space: 'CMYK', origin: 'other', note: 'a\nb', digest, content },
      i,
    );
    const origin = { keyId: null, origin: '' };
    await recordAct({ ...services, database }, origin, { what: 'keep', object: `${i}`, sent: undefined });
  });

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'melto-house-'));
  services = await openTestServices('melto_saved');
  for (let i = 1; i <= 8; i++) await keep(i);
  await saveHouse(urlOf('melto_saved'), fileOf('whole.melto'));
});
afterAll(async () => {
  await services.database.close();
  rmSync(folder, { recursive: true });
});

describe('a saved house', () => {
  it('comes back equal in every table, with its guards', async () => {
    const url = await emptied('melto_restored');
    const { migrated } = await restoreHouse(url, fileOf('whole.melto'), MIGRATIONS);
    expect(migrated).toEqual([]);
    const [before, after] = [await standing(urlOf('melto_saved')), await standing(url)];
    expect(after).toEqual(before);
    expect(after.get('kept_profile')?.rows).toBe(8);
    const database = openDatabase(url);
    await expect(database.change("UPDATE act SET what = 'x'")).rejects.toThrow(/not changed/);
    await database.close();
  });

  it('is of one moment, while others go on writing', async () => {
    let writing = true;
    let next = 100;
    const writers = Array.from({ length: 4 }, async () => {
      while (writing) await keep(next++);
    });
    await saveHouse(urlOf('melto_saved'), fileOf('busy.melto'));
    writing = false;
    await Promise.all(writers);
    const url = await emptied('melto_restored');
    await restoreHouse(url, fileOf('busy.melto'), MIGRATIONS);
    const tables = await standing(url);
    // Each profile was kept together with its act.
    expect(tables.get('act')?.rows).toBe(tables.get('kept_profile')?.rows);
    expect(tables.get('act')?.rows).toBeGreaterThanOrEqual(8);
    expect(tables.get('act')?.rows).toBeLessThan(next);
  });

  it('of an earlier version is brought up to this one', async () => {
    const older = fileOf('migrations');
    cpSync(MIGRATIONS, older, { recursive: true });
    const last = migrationsKnown(older).at(-1) ?? '';
    rmSync(join(older, last));
    const url = await emptied('melto_older');
    const database = openDatabase(url);
    await migrate(database, older);
    await database.close();
    await saveHouse(url, fileOf('older.melto'));
    const to = await emptied('melto_restored');
    expect((await restoreHouse(to, fileOf('older.melto'), MIGRATIONS)).migrated).toEqual([last]);
    // A version that does not know a migration refuses it.
    expect(await refusal(restoreHouse(to, fileOf('whole.melto'), older))).toContain(
      `newer version of Melto: it has ${last}`,
    );
  });

  it('that was cut, changed, or is something else is refused before anything is touched', async () => {
    const bytes = readFileSync(fileOf('whole.melto'));
    const plain = gunzipSync(bytes);
    const middle = Math.floor(plain.length / 2);
    const other = Buffer.from(plain);
    other[middle] ^= 1;
    const files: Record<string, Uint8Array> = {
      cut: bytes.subarray(0, bytes.length - 40),
      empty: new Uint8Array(0),
      text: Buffer.from('no house'),
      changed: gzipSync(other),
      shorter: gzipSync(plain.subarray(0, plain.length - 500)),
      headless: gzipSync(Buffer.from('SELECT 1;\n')),
      endless: gzipSync(Buffer.alloc(2_000_000, 65)),
      strange: gzipSync(Buffer.from('-- melto house {"format":99}\nSELECT 1;\n')),
    };
    const url = await emptied('melto_restored');
    for (const [name, content] of Object.entries(files)) {
      writeFileSync(fileOf(name), content);
      expect(await refusal(restoreHouse(url, fileOf(name), MIGRATIONS)), name).toContain(
        'is no whole saved house',
      );
      expect(await refusal(checkHouseFile(fileOf(name))), name).toContain(name);
    }
    expect(await refusal(checkHouseFile(fileOf('missing')))).toContain('there is no such file');
    expect((await checkHouseFile(fileOf('whole.melto'))).migrations).toEqual(migrationsKnown(MIGRATIONS));
    const database = openDatabase(url);
    expect(await tableNames(database)).toEqual([]);
    await database.close();
  });

  it('does not go over a house that is in use, or that runs', async () => {
    const before = await standing(urlOf('melto_saved'));
    expect(await refusal(restoreHouse(urlOf('melto_saved'), fileOf('whole.melto'), MIGRATIONS))).toContain(
      'in use',
    );
    expect(await standing(urlOf('melto_saved'))).toEqual(before);
    const url = await emptied('melto_restored');
    const database = openDatabase(url);
    await migrate(database, MIGRATIONS);
    const now = Date.now();
    await database.change("INSERT INTO runner (id, started_ms, beat_ms) VALUES ('one', ?, ?)", [
      now,
      now - 9999,
    ]);
    expect(await refusal(restoreHouse(url, fileOf('whole.melto'), MIGRATIONS, now))).toContain('is running');
    await database.change('UPDATE runner SET beat_ms = ?', [now - 10_000]);
    await restoreHouse(url, fileOf('whole.melto'), MIGRATIONS, now);
    await database.close();
  });

  it('is written once where two write it at once, and leaves nothing behind where it fails', async () => {
    const both = await Promise.allSettled(
      [1, 2].map(() => saveHouse(urlOf('melto_saved'), fileOf('twice.melto'))),
    );
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    await checkHouseFile(fileOf('twice.melto'));
    await expect(saveHouse(urlOf('melto_nowhere'), fileOf('none.melto'))).rejects.toThrow();
    expect(readdirSync(folder).filter((name) => name.startsWith('none') || name.endsWith('.part'))).toEqual(
      [],
    );
  });
});

describe('copies of a house', () => {
  it('are made once a day, and what was never ended is cleared away', async () => {
    const copies = fileOf('copies');
    const now = Date.UTC(2026, 10, 30, 4, 5, 6);
    const url = urlOf('melto_older');
    const first = await keepCopies(url, copies, now);
    expect(first).toBe(join(copies, 'house-2026-11-30T04-05-06Z.melto'));
    expect(statSync(copies).mode & 0o777).toBe(0o700);
    expect(await keepCopies(url, copies, now + DAY - 1)).toBeUndefined();
    for (const [name, hours] of [
      ['old.part', 12.1],
      ['new.part', 11.9],
    ] as const) {
      writeFileSync(join(copies, name), '');
      utimesSync(join(copies, name), new Date(now), new Date(now + DAY - hours * 3_600_000));
    }
    expect(await keepCopies(url, copies, now + DAY)).toBeDefined();
    expect(existsSync(join(copies, 'old.part'))).toBe(false);
    expect(existsSync(join(copies, 'new.part'))).toBe(true);
    expect(readdirSync(copies).filter((name) => name.endsWith('.melto'))).toHaveLength(2);
  });

  it('are kept for each of seven days, five weeks and twelve months', () => {
    const now = Date.UTC(2026, 10, 30, 4);
    const times = Array.from({ length: 800 }, (_, i) => now - i * DAY);
    const forgotten = new Set(copiesToForget(times, now));
    const kept = times.filter((time) => !forgotten.has(time)).map((time) => Math.round((now - time) / DAY));
    expect(kept.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(forgotten.has(now - 7 * DAY)).toBe(false);
    const weekly = kept.filter((days) => days >= 7 && days < 35);
    expect(weekly.length).toBeGreaterThanOrEqual(4);
    expect(weekly.length).toBeLessThanOrEqual(5);
    const monthly = kept.filter((days) => days >= 35);
    expect(monthly.length).toBeGreaterThanOrEqual(11);
    expect(monthly.length).toBeLessThanOrEqual(13);
    expect(Math.max(...kept)).toBeLessThan(31 * 12);
    // The only one stays, however old it is.
    expect(copiesToForget([now - 900 * DAY], now)).toEqual([]);
    expect(copiesToForget([now - 900 * DAY, now - 901 * DAY], now)).toEqual([now - 901 * DAY]);
  });

  it('tell their time by their names, and nothing else is a copy', () => {
    const now = Date.UTC(2026, 1, 3, 4, 5, 6);
    expect(copyTime(copyName(now))).toBe(now);
    for (const name of ['house.melto', 'house-2026-02-03T04-05-06Z.melto.part', 'other.melto', '../house'])
      expect(copyTime(name)).toBeUndefined();
  });
});
