import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { RGB } from '@melto/core/device/process';
import { insertCondition, listConditions, listSettingsPoints, findCondition } from './conditions.ts';
import { isDuplicate, openDatabase } from './database.ts';
import type { Database } from './database.ts';
import { insertDevice, insertStock, listDevices, listStocks, nextPrintNumber } from './devices.ts';
import { purgeKeys, reserveKey, storeAnswer } from './idempotency.ts';
import { askCancel, claimJob, findJob, finishJob, heartbeat, insertJob, listJobs, retryJob } from './jobs.ts';
import { migrate } from './migrate.ts';
import {
  findResultFile,
  insertResult,
  insertResultFile,
  listHeads,
  listResults,
  setHead,
} from './results.ts';
import { readSetting, writeSetting } from './settings.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';
import { OF_CONDITION } from './readings.ts';
import { WATCH_CHECKS_SQL, WATCH_STATES_SQL } from './watches.ts';
import { keepInstrument, listInstruments, setTile } from './instruments.ts';
import type { InstrumentTraits } from './instruments.ts';

const LONG = { lane: 'long' } as const;
const MIGRATIONS = join(import.meta.dirname, '../migrations');
const NAME = 'melto_store';
let database: Database;
let folder = '';

beforeAll(async () => {
  const url = process.env['MELTO_TEST_DATABASE_URL'];
  if (url === undefined) throw new Error('MELTO_TEST_DATABASE_URL is not set: run ./test');
  const admin = openDatabase(url);
  await admin.change(`DROP DATABASE IF EXISTS ${NAME}`);
  await admin.change(`CREATE DATABASE ${NAME}`);
  await admin.close();
  database = openDatabase(url.replace(/\/[^/]*$/, `/${NAME}`));
  folder = mkdtempSync(join(tmpdir(), 'melto-migrations-'));
  cpSync(MIGRATIONS, folder, { recursive: true });
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true });
});

const READER: InstrumentTraits = {
  ...{ serial: 'R-1', kind: 'strip', modes: ['M0', 'M1'], tileLifeMs: 7_200_000 },
  ...{ apertureMm: 4.5, filter: '', backing: 'black', simulated: false },
};

describe('migrations', () => {
  it('run once from an empty schema, in order', async () => {
    expect(await migrate(database, folder)).toContain('0001_foundation.sql');
    expect(await migrate(database, folder)).toEqual([]);
    writeFileSync(
      join(folder, '0900_more.sql'),
      'CREATE TABLE extra (id INT);\nINSERT INTO extra VALUES (1);\n',
    );
    expect(await migrate(database, folder)).toEqual(['0900_more.sql']);
    expect(await database.rows('SELECT id FROM extra')).toEqual([{ id: 1 }]);
  });

  it('refuse one that was changed after it had run', async () => {
    writeFileSync(join(folder, '0900_more.sql'), 'CREATE TABLE other (id INT);\n');
    await expect(migrate(database, folder)).rejects.toThrow('0900_more.sql was changed');
  });
});

describe('database', () => {
  it('rolls a transaction back whole and knows duplicates', async () => {
    await expect(
      database.transaction(async (sql) => {
        await writeSetting(sql, 'kept', 'no');
        throw new Error('stop');
      }),
    ).rejects.toThrow('stop');
    expect(await readSetting(database, 'kept')).toBeUndefined();
    await writeSetting(database, 'kept', 'yes');
    await writeSetting(database, 'kept', 'still');
    expect(await readSetting(database, 'kept')).toBe('still');
    const error = await database
      .change("INSERT INTO setting (house_id, name, value) VALUES (1, 'kept', 'x')")
      .catch((thrown: unknown) => thrown);
    expect(isDuplicate(error)).toBe(true);
    expect(isDuplicate(new Error('other'))).toBe(false);
  });

  it('packs values as float32 without loss beyond it', () => {
    const values = Float64Array.of(0, 1, 0.12345678, -3.5, 1e-5);
    const back = decodeValues(encodeValues(values));
    expect(encodeValues(values)).toHaveLength(20);
    values.forEach((value, i) => expect(back[i]).toBe(Math.fround(value)));
    expect(encodeValues(Float64Array.of(1)).toString('hex')).toBe('0000803f'); // little-endian
  });

  it('keeps the answer of an idempotency key by house, person and route, until it is old', async () => {
    const key = { route: 'POST /a', key: 'k' };
    expect(await reserveKey(database, key, 100)).toBeUndefined();
    await storeAnswer(database, key, '{"a":1}');
    expect(await reserveKey(database, key, 200)).toBe('{"a":1}');
    expect(await reserveKey(database, { ...key, route: 'POST /b' }, 200)).toBeUndefined();
    expect(await purgeKeys(database, 100)).toBe(0);
    expect(await purgeKeys(database, 101)).toBe(1);
    expect(await reserveKey(database, key, 300)).toBeUndefined();
  });
});

describe('devices and conditions', () => {
  it('are registered once, with their three letters and counters', async () => {
    const device = { name: 'Wren', code: 'WRN', kind: 'inkjet', process: RGB, driver: 'wren' };
    await insertDevice(database, device, 1);
    await insertDevice(database, { ...device, kind: 'another' }, 2);
    await insertStock(database, { name: 'Quay', finish: 'matt', restMinutes: 10, driver: 'quay' }, 1);
    await keepInstrument(database, 'Reader', READER);
    expect(await listDevices(database)).toMatchObject([{ ...device, kind: 'inkjet' }]);
    const [{ id }] = await listDevices(database);
    const numbers = await Promise.all(
      Array.from({ length: 8 }, () => database.transaction((sql) => nextPrintNumber(sql, id))),
    );
    expect(numbers.sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    await expect(nextPrintNumber(database, 999)).rejects.toThrow('no device');
    const [instrument] = await listInstruments(database);
    expect(instrument.tileMs).toBeNull();
    await setTile(database, instrument.id, 1_800_000_000_000);
    expect((await listInstruments(database))[0].tileMs).toBe(1_800_000_000_000);
  });

  it('keep their settings record in order', async () => {
    const [device] = await listDevices(database);
    const [stock] = await listStocks(database);
    const points = [
      { label: 'Colour management off', value: 'off', tickAtPrint: true },
      { label: 'Media', value: 'matt', tickAtPrint: false },
    ];
    const id = await insertCondition(
      database,
      { deviceId: device.id, stockId: stock.id, inkSet: 'Four', mode: 'fine', label: '', copiedFrom: null },
      points,
      5,
    );
    expect(await listSettingsPoints(database, id)).toEqual(points);
    expect(await findCondition(database, id)).toMatchObject({
      device: 'Wren',
      stock: 'Quay',
      mode: 'fine',
      restMinutes: 10,
    });
    expect(await findCondition(database, 999)).toBeUndefined();
    expect(await listConditions(database, { after: id, limit: 10 })).toEqual({ rows: [], next: null });
    await expect(
      insertCondition(
        database,
        { deviceId: 999, stockId: stock.id, inkSet: 'x', mode: 'y', label: '', copiedFrom: null },
        [],
        5,
      ),
    ).rejects.toThrow();
  });
});

describe('results', () => {
  it('get versions of their own link, and the newest is in force until another is put there', async () => {
    const {
      rows: [condition],
    } = await listConditions(database, { limit: 1 });
    if (condition === undefined) throw new Error('no condition');
    const make = (link: 'profile' | 'conformity') =>
      database.transaction((sql) =>
        insertResult(
          sql,
          {
            conditionId: condition.id,
            link,
            shape: link,
            shapeVersion: 1,
            verdict: null,
            summary: { a: 1 },
            detail: {},
            madeMs: 1,
          },
          { readings: [], results: [] },
        ),
      );
    const first = await make('profile');
    const second = await make('profile');
    const check = await make('conformity');
    expect([first.version, second.version, check.version]).toEqual([1, 2, 1]);
    const head = async (): Promise<number | undefined> =>
      (await listHeads(database, condition.id)).find(({ link }) => link === 'profile')?.id;
    expect(await head()).toBe(second.id);
    await setHead(database, condition.id, 'profile', first.id);
    expect(await head()).toBe(first.id);
    const listed = await listResults(database, condition.id, ['profile'], { limit: 1 });
    expect(listed.rows.map(({ version }) => version)).toEqual([2]);
    expect(listed.next).toBe(second.id);
    const rest = await listResults(database, condition.id, ['profile'], { limit: 1, after: second.id });
    expect(rest).toMatchObject({ rows: [{ id: first.id }], next: null });
    const content = Buffer.alloc(3_000_000, 7);
    await insertResultFile(database, first.id, 'profile', { name: 'p.icc', mediaType: 'x/y', content }, 1);
    expect((await findResultFile(database, first.id, 'profile'))?.content.equals(content)).toBe(true);
    expect(await findResultFile(database, second.id, 'profile')).toBeUndefined();
  });
});

describe('job queue', () => {
  it('hands each job to one runner, oldest first, however many ask', async () => {
    for (let i = 0; i < 6; i++)
      await insertJob(database, { kind: 'work', lane: 'long', conditionId: null, input: { i } }, 100 + i);
    const claims = await Promise.all(
      Array.from({ length: 10 }, (_, i) => claimJob(database, `runner-${i}`, 1000, 500, LONG)),
    );
    const ids = claims.filter((job) => job !== undefined).map((job) => job.id);
    expect(new Set(ids).size).toBe(6);
    expect(ids).toHaveLength(6);
    expect(claims.filter((job) => job === undefined)).toHaveLength(4);
    const [first] = claims.filter((job) => job !== undefined);
    expect(JSON.parse(first.input)).toHaveProperty('i');
  });

  it('takes a job up again when its lease has run out, and then refuses the first runner', async () => {
    const again = await claimJob(database, 'second', 2000, 500, LONG);
    expect(again?.attempts).toBe(1);
    if (again === undefined) return;
    expect(await heartbeat(database, { ...again, token: 'runner-0' }, 0.5, 'x', 3000)).toBe('lost');
    expect(await finishJob(database, { ...again, token: 'runner-0' }, { state: 'done' }, 3000)).toBe(false);
    expect(await heartbeat(database, again, 0.5, 'half', 3000)).toBe('kept');
    expect(await findJob(database, again.id)).toMatchObject({
      state: 'running',
      fraction: 0.5,
      words: 'half',
    });
    expect(await finishJob(database, again, { state: 'failed', error: 'e'.repeat(2000) }, 3000)).toBe(true);
    expect((await findJob(database, again.id))?.error).toHaveLength(1000);
  });

  it('puts a job back for later, and cancels waiting and running ones', async () => {
    const job = await claimJob(database, 'third', 3000, 500, LONG);
    if (job === undefined) throw new Error('no job');
    await retryJob(database, job, 9000);
    const next = await claimJob(database, 'third', 3000, 500, LONG);
    expect(next?.id).not.toBe(job.id);
    expect(await askCancel(database, job.id, 3100)).toBe(true);
    expect((await findJob(database, job.id))?.state).toBe('cancelled');
    if (next === undefined) throw new Error('no job');
    expect(await askCancel(database, next.id, 3100)).toBe(true);
    expect(await heartbeat(database, next, 0.2, 'x', 4000)).toBe('cancelled');
    expect(await finishJob(database, next, { state: 'cancelled' }, 3200)).toBe(true);
    expect(await askCancel(database, next.id, 3300)).toBe(false);
    const recent = await listJobs(database, 3050);
    expect(recent.find(({ id }) => id === next.id)?.state).toBe('cancelled');
  });

  it('serves its queue from an index', async () => {
    // With a sort the first runner would lock every job it looks at, and the others would get nothing.
    const [plan] = await database.rows<{ key: string; Extra: string }>(
      "EXPLAIN SELECT id FROM job FORCE INDEX (job_queue) WHERE lane = 'long' AND state = 'queued' AND available_ms <= ? ORDER BY available_ms, id LIMIT 1 FOR UPDATE SKIP LOCKED",
      [1],
    );
    expect(plan.key).toBe('job_queue');
    expect(plan.Extra).not.toContain('filesort');
    const [rack] = await database.rows<{ key: string }>(
      'EXPLAIN SELECT id FROM sheet WHERE house_id = 1 AND on_rack = 1 AND id > 0 ORDER BY id LIMIT 201',
    );
    expect(rack.key).toBe('sheet_rack');
  });

  it('finds the checks of a watch by its index, newest first, without sorting', async () => {
    // Rows enough that the plan is not that of an empty table; what they refer to does not exist.
    await database.transaction(async (sql) => {
      await sql.change('SET FOREIGN_KEY_CHECKS = 0');
      await sql.change(
        "INSERT INTO reading (house_id, id, print_id, source, mode, started_ms, author_id) SELECT 1, seq, 1, 'desk', 'M1', 0, 1 FROM seq_1_to_5000",
      );
      await sql.change(
        `INSERT INTO watch_check (house_id, condition_id, watch_id, reading_id, made_ms, mean_delta_e, largest_delta_e, verdict, moved, figures)
         SELECT 1, 1, 1 + MOD(seq, 50), seq, seq, 0.2, 0.5, 'conforms', 0, '' FROM seq_1_to_5000`,
      );
      await sql.change('SET FOREIGN_KEY_CHECKS = 1');
    });
    await database.rows('ANALYZE TABLE watch_check, reading');
    const plan = await database.rows<{ table: string; key: string | null; Extra: string }>(
      `EXPLAIN ${WATCH_CHECKS_SQL}`,
      [1, 1, Number.MAX_SAFE_INTEGER, 800],
    );
    const checks = plan.find(({ table }) => table === 'c');
    expect(checks?.key).toBe('watch_check_order');
    expect(checks?.Extra ?? '').not.toContain('filesort');
    expect(plan.find(({ table }) => table === 'r')?.key).toBe('PRIMARY');
  });

  it('finds the readings of a condition by its prints, however many the house has', async () => {
    const plan = await database.rows<{ table: string; key: string | null }>(
      `EXPLAIN SELECT ${OF_CONDITION} AND r.finished_ms IS NOT NULL ORDER BY r.id DESC LIMIT 60`,
      [1, 1],
    );
    expect(plan.find(({ table }) => table === 'p')?.key).toBe('print_condition');
    expect(plan.find(({ table }) => table === 'r')?.key).toBe('reading_print');
  });

  it('reads where all watches stand in one pass over a table of one row a condition', async () => {
    const plan = await database.rows<{ table: string; type: string }>(`EXPLAIN ${WATCH_STATES_SQL}`, [1]);
    expect(plan).toHaveLength(1);
    expect(plan[0].table).toBe('watch_state');
  });
});
