import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findAimSet, insertAimSet, listAimSets, listAimSetVersions, setAimSetRemoved } from './aimSets.ts';
import { openDatabase } from './database.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';
import {
  findToleranceSet,
  insertToleranceSet,
  listToleranceSets,
  listToleranceSetVersions,
  setToleranceSetRemoved,
} from './toleranceSets.ts';

const NAME = 'melto_store_library';
let database: Database;

beforeAll(async () => {
  const url = process.env['MELTO_TEST_DATABASE_URL'];
  if (url === undefined) throw new Error('MELTO_TEST_DATABASE_URL is not set: run ./test');
  const admin = openDatabase(url);
  await admin.change(`DROP DATABASE IF EXISTS ${NAME}`);
  await admin.change(`CREATE DATABASE ${NAME}`);
  await admin.close();
  database = openDatabase(url.replace(/\/[^/]*$/, `/${NAME}`));
  await migrate(database, join(import.meta.dirname, '../migrations'));
});
afterAll(async () => database.close());

const aims = (family: string, name: string, madeMs = 0): Promise<number> =>
  insertAimSet(database, {
    ...{ family, name, origin: 'typed in', source: 'by hand', patches: 3, madeMs },
    conditions: { mode: 'M1' },
    reference: 'CGATS.17',
  });
const tolerances = (family: string, name: string, shipped = false): Promise<number> =>
  insertToleranceSet(database, {
    family,
    name,
    source: 'house',
    shipped,
    definition: { metrics: [] },
    madeMs: 0,
  });

describe('aim sets', () => {
  it('get a version each in their family, and the latest of each is listed', async () => {
    const one = await aims('own-a', 'A');
    const two = await aims('own-a', 'A, mended');
    await aims('fogra39l', 'FOGRA39L');
    expect((await findAimSet(database, one))?.version).toBe(1);
    expect(await findAimSet(database, two)).toMatchObject({ version: 2, reference: 'CGATS.17' });
    const listed = await listAimSets(database);
    expect(listed.map(({ name, version }) => `${name} ${version}`)).toEqual(['A, mended 2', 'FOGRA39L 1']);
    // Lists do not carry the data.
    expect(listed.every((row) => !('reference' in row))).toBe(true);
    expect((await listAimSetVersions(database, 'own-a')).map(({ id }) => id)).toEqual([two, one]);
  });

  it('keep what they were when a new version comes', async () => {
    const first = await aims('own-b', 'B');
    const before = await findAimSet(database, first);
    await aims('own-b', 'B, again', 99);
    expect(await findAimSet(database, first)).toEqual(before);
  });

  it('that were removed are off the list, with all their versions, and come back', async () => {
    const id = await aims('own-c', 'C');
    const names = async (): Promise<string[]> => (await listAimSets(database)).map(({ name }) => name);
    expect(await names()).toContain('C');
    await setAimSetRemoved(database, 'own-c', 5);
    expect(await names()).not.toContain('C');
    expect((await findAimSet(database, id))?.removedMs).toBe(5);
    await setAimSetRemoved(database, 'own-c', null);
    expect(await names()).toContain('C');
  });

  it('are not there under a number that there is not', async () => {
    expect(await findAimSet(database, 99_999)).toBeUndefined();
    expect(await listAimSetVersions(database, 'own-z')).toEqual([]);
  });
});

describe('tolerance sets', () => {
  it('are listed in the order of their first versions, whatever changed since', async () => {
    const first = await tolerances('iso12647-7-proof', 'Proof', true);
    await tolerances('own-t', 'Ours');
    const next = await tolerances('iso12647-7-proof', 'Proof, new edition', true);
    const listed = await listToleranceSets(database);
    expect(listed.map(({ name, version }) => `${name} ${version}`)).toEqual([
      'Proof, new edition 2',
      'Ours 1',
    ]);
    expect(listed.map(({ shipped }) => shipped)).toEqual([true, false]);
    expect((await listToleranceSetVersions(database, 'iso12647-7-proof')).map(({ id }) => id)).toEqual([
      next,
      first,
    ]);
    expect((await findToleranceSet(database, first))?.name).toBe('Proof');
  });

  it('that are shipped are not removed, own ones are', async () => {
    expect(await setToleranceSetRemoved(database, 'iso12647-7-proof', 5)).toBe(0);
    expect(await setToleranceSetRemoved(database, 'own-t', 5)).toBe(1);
    expect((await listToleranceSets(database)).map(({ name }) => name)).toEqual(['Proof, new edition']);
    expect(await setToleranceSetRemoved(database, 'own-t', null)).toBe(1);
    expect(await listToleranceSets(database)).toHaveLength(2);
  });
});
