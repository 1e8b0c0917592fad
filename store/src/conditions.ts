import type { Process } from '@melto/core/device/process';
import type { Sql } from './database.ts';
import { pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';

export interface ConditionRow {
  readonly id: number;
  readonly deviceId: number;
  readonly device: string;
  readonly deviceCode: string;
  readonly deviceDriver: string;
  readonly process: Process;
  readonly stockId: number;
  readonly stock: string;
  readonly stockDriver: string;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  readonly restMinutes: number;
  readonly inkSet: string;
  readonly mode: string;
  readonly madeMs: number;
}

export interface SettingsPoint {
  readonly label: string;
  readonly value: string;
  readonly tickAtPrint: boolean;
}

/** What makes a condition the same as another. */
export interface ConditionKey {
  readonly deviceId: number;
  readonly stockId: number;
  readonly inkSet: string;
  readonly mode: string;
}

const JOINED = 'printing_condition c JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id';
const COLUMNS = `c.id, c.device_id AS deviceId, d.name AS device, d.code AS deviceCode, d.driver AS deviceDriver, d.process,
  c.stock_id AS stockId, s.name AS stock, s.driver AS stockDriver, s.finish, s.rest_minutes AS restMinutes,
  c.ink_set AS inkSet, c.mode, c.made_ms AS madeMs FROM ${JOINED}`;

type StoredCondition = Omit<ConditionRow, 'process'> & { readonly process: string };
const typed = (row: StoredCondition): ConditionRow => ({
  ...row,
  process: JSON.parse(row.process) as Process,
});

export async function listConditions(sql: Sql, { after = 0, limit }: PageAsked): Promise<Page<ConditionRow>> {
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND c.id > ? ORDER BY c.id LIMIT ?`,
    [sql.house, after, String(limit + 1)],
  );
  return pageOf(rows.map(typed), limit, ({ id }) => id);
}

/** A condition by the least that lists sort and find it by. */
export type ConditionName = Pick<ConditionRow, 'id' | 'device' | 'stock' | 'mode' | 'deviceId'>;

/** All conditions of the house, without what only one of them needs. */
export function listConditionNames(sql: Sql): Promise<ConditionName[]> {
  return sql.rows(
    `SELECT c.id, d.name AS device, s.name AS stock, c.mode, c.device_id AS deviceId FROM ${JOINED} WHERE c.house_id = ? ORDER BY c.id`,
    [sql.house],
  );
}

/** Some conditions, in the order of their ids. */
export async function findConditions(sql: Sql, ids: readonly number[]): Promise<ConditionRow[]> {
  if (ids.length === 0) return [];
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND c.id IN (${ids.map(() => '?').join(', ')}) ORDER BY c.id`,
    [sql.house, ...ids],
  );
  return rows.map(typed);
}

export async function findCondition(sql: Sql, id: number): Promise<ConditionRow | undefined> {
  return (await findConditions(sql, [id]))[0];
}

export async function countConditions(sql: Sql): Promise<number> {
  const [row] = await sql.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM printing_condition WHERE house_id = ?',
    [sql.house],
  );
  return Number(row?.n ?? 0);
}

/** The condition that is the same in device, stock, inks and mode. */
export async function findSameCondition(sql: Sql, key: ConditionKey): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number }>(
    'SELECT id FROM printing_condition WHERE house_id = ? AND device_id = ? AND stock_id = ? AND mode = ? AND ink_set = ? LIMIT 1',
    [sql.house, key.deviceId, key.stockId, key.mode, key.inkSet],
  );
  return row?.id;
}

/** Conditions of a device, inks and mode, on any stock. */
export async function listLikeConditions(
  sql: Sql,
  { deviceId, inkSet, mode }: Omit<ConditionKey, 'stockId'>,
): Promise<ConditionRow[]> {
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND c.device_id = ? AND c.mode = ? AND c.ink_set = ? ORDER BY c.id`,
    [sql.house, deviceId, mode, inkSet],
  );
  return rows.map(typed);
}

/** Conditions whose device, stock or mode hold all the words, the first of them. */
export function searchConditions(
  sql: Sql,
  words: readonly string[],
  limit: number,
): Promise<
  { readonly id: number; readonly device: string; readonly stock: string; readonly mode: string }[]
> {
  return sql.rows(
    `SELECT c.id, d.name AS device, s.name AS stock, c.mode FROM ${JOINED} WHERE c.house_id = ?
     ${words.map(() => "AND CONCAT_WS(' ', d.name, s.name, c.mode) LIKE ?").join(' ')} ORDER BY d.name, s.name, c.id LIMIT ?`,
    [sql.house, ...words, String(limit)],
  );
}

/** Locks a condition, so that those who add to its ledger follow each other; false where there is none. */
export async function lockCondition(sql: Sql, id: number): Promise<boolean> {
  const rows = await sql.rows('SELECT id FROM printing_condition WHERE id = ? AND house_id = ? FOR UPDATE', [
    id,
    sql.house,
  ]);
  return rows.length > 0;
}

export async function insertCondition(
  sql: Sql,
  condition: ConditionKey & { readonly copiedFrom: number | null },
  points: readonly SettingsPoint[],
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO printing_condition (house_id, device_id, stock_id, ink_set, mode, copied_from, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      condition.deviceId,
      condition.stockId,
      condition.inkSet,
      condition.mode,
      condition.copiedFrom,
      sql.person,
      nowMs,
    ],
  );
  for (const [position, point] of points.entries())
    await sql.change(
      'INSERT INTO settings_point (house_id, condition_id, position, label, value, tick_at_print) VALUES (?, ?, ?, ?, ?, ?)',
      [sql.house, id, position, point.label, point.value, point.tickAtPrint],
    );
  return id;
}

export async function listSettingsPoints(sql: Sql, condition: number): Promise<SettingsPoint[]> {
  const rows = await sql.rows<{ label: string; value: string; tickAtPrint: number }>(
    'SELECT label, value, tick_at_print AS tickAtPrint FROM settings_point WHERE condition_id = ? AND house_id = ? ORDER BY position',
    [condition, sql.house],
  );
  return rows.map((row) => ({ ...row, tickAtPrint: row.tickAtPrint === 1 }));
}
