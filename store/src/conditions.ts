import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import type { Process } from '@melto/core/device/process';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import type { Sql } from './database.ts';
import { factsOf } from './devices.ts';
import { pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';
import { lockRow } from './lockRow.ts';

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
  /** What the house knows of the device and of the stock. */
  readonly deviceFacts: DeviceFacts;
  readonly stockFacts: StockFacts;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  /** As the house has found for this condition, else as its stock and its inks say. */
  readonly restMinutes: number;
  readonly usualRestMinutes: number;
  /** The device's own calibration. */
  readonly dutyWords: string;
  readonly dutyDays: number | null;
  readonly dutyDoneMs: number | null;
  readonly inkSet: string;
  readonly mode: string;
  /** What tells it from others of the same device, stock, inks and mode; empty where there is none. */
  readonly label: string;
  readonly madeMs: number;
  readonly archivedMs: number | null;
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

const JOINED = `printing_condition c JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id
  LEFT JOIN ink_set i ON i.house_id = c.house_id AND i.name = c.ink_set`;
/** Where the house has not found another time: that of the ink or of the stock, whichever is longer. */
const USUAL_REST = 'CAST(GREATEST(s.rest_minutes, COALESCE(i.rest_minutes, 0)) AS UNSIGNED)';
const COLUMNS = `c.id, c.device_id AS deviceId, d.name AS device, d.code AS deviceCode, d.driver AS deviceDriver, d.process,
  c.stock_id AS stockId, s.name AS stock, s.driver AS stockDriver, d.facts AS deviceFacts, s.facts AS stockFacts, s.finish, COALESCE(c.rest_minutes, ${USUAL_REST}) AS restMinutes, ${USUAL_REST} AS usualRestMinutes,
  d.duty AS dutyWords, d.duty_days AS dutyDays, d.duty_done_ms AS dutyDoneMs,
  c.ink_set AS inkSet, c.mode, c.label, c.made_ms AS madeMs, c.archived_ms AS archivedMs FROM ${JOINED}`;
const THERE = 'c.deleted_ms IS NULL';

type StoredCondition = Omit<ConditionRow, 'process' | 'deviceFacts' | 'stockFacts'> & {
  readonly process: string;
  readonly deviceFacts: string | null;
  readonly stockFacts: string | null;
};
const typed = (row: StoredCondition): ConditionRow => ({
  ...row,
  process: JSON.parse(row.process) as Process,
  deviceFacts: factsOf<DeviceFacts>(row.deviceFacts),
  stockFacts: factsOf<StockFacts>(row.stockFacts),
});

export async function listConditions(sql: Sql, { after = 0, limit }: PageAsked): Promise<Page<ConditionRow>> {
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND ${THERE} AND c.archived_ms IS NULL AND c.id > ? ORDER BY c.id LIMIT ?`,
    [sql.house, after, String(limit + 1)],
  );
  return pageOf(rows.map(typed), limit, ({ id }) => id);
}

/** Those that were archived, the latest first. */
export async function listArchivedConditions(sql: Sql, limit: number): Promise<ConditionRow[]> {
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND ${THERE} AND c.archived_ms IS NOT NULL ORDER BY c.archived_ms DESC LIMIT ?`,
    [sql.house, String(limit)],
  );
  return rows.map(typed);
}

/** A condition by the least that lists sort and find it by. */
export type ConditionName = Pick<ConditionRow, 'id' | 'device' | 'stock' | 'mode' | 'label' | 'deviceId'>;

/** All conditions of the house that are not archived, without what only one of them needs. */
export function listConditionNames(sql: Sql): Promise<ConditionName[]> {
  return sql.rows(
    `SELECT c.id, d.name AS device, s.name AS stock, c.mode, c.label, c.device_id AS deviceId FROM ${JOINED} WHERE c.house_id = ? AND ${THERE} AND c.archived_ms IS NULL ORDER BY c.id`,
    [sql.house],
  );
}

/** Some conditions, in the order of their ids. */
export async function findConditions(sql: Sql, ids: readonly number[]): Promise<ConditionRow[]> {
  if (ids.length === 0) return [];
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND ${THERE} AND c.id IN (${ids.map(() => '?').join(', ')}) ORDER BY c.id`,
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

/** The conditions that are the same in device, stock, inks and mode, archived ones too. */
export function listSameConditions(
  sql: Sql,
  key: ConditionKey,
): Promise<{ readonly id: number; readonly label: string }[]> {
  return sql.rows(
    'SELECT id, label FROM printing_condition WHERE house_id = ? AND deleted_ms IS NULL AND device_id = ? AND stock_id = ? AND mode = ? AND ink_set = ? ORDER BY id',
    [sql.house, key.deviceId, key.stockId, key.mode, key.inkSet],
  );
}

export async function setConditionLabel(sql: Sql, id: number, label: string): Promise<void> {
  await sql.change('UPDATE printing_condition SET label = ? WHERE id = ? AND house_id = ?', [
    label,
    id,
    sql.house,
  ]);
}

/** Whether something was printed for a condition, or stands in its chain. */
export async function isUsed(sql: Sql, id: number): Promise<boolean> {
  const [row] = await sql.rows<{ used: number }>(
    'SELECT EXISTS (SELECT 1 FROM print WHERE condition_id = ? AND house_id = ?) OR EXISTS (SELECT 1 FROM result WHERE condition_id = ? AND house_id = ?) AS used',
    [id, sql.house, id, sql.house],
  );
  return row?.used === 1;
}

/** What a condition that was deleted is made of; nothing where there is none of that number. */
export function deletedKey(sql: Sql, id: number): Promise<(ConditionKey & { readonly label: string })[]> {
  return sql.rows(
    'SELECT device_id AS deviceId, stock_id AS stockId, ink_set AS inkSet, mode, label FROM printing_condition WHERE id = ? AND house_id = ? AND deleted_ms IS NOT NULL',
    [id, sql.house],
  );
}

/** Deletes a condition, or takes that back. */
export async function setConditionDeleted(sql: Sql, id: number, deletedMs: number | null): Promise<void> {
  await sql.change('UPDATE printing_condition SET deleted_ms = ? WHERE id = ? AND house_id = ?', [
    deletedMs,
    id,
    sql.house,
  ]);
}

/** Sets how long prints of a condition rest; null for the time of its stock. */
export async function setConditionRest(sql: Sql, id: number, restMinutes: number | null): Promise<void> {
  await sql.change('UPDATE printing_condition SET rest_minutes = ? WHERE id = ? AND house_id = ?', [
    restMinutes,
    id,
    sql.house,
  ]);
}

/** Takes a condition off all lists, or puts it back; what was made for it stays. */
export async function setConditionArchived(sql: Sql, id: number, archivedMs: number | null): Promise<void> {
  await sql.change('UPDATE printing_condition SET archived_ms = ? WHERE id = ? AND house_id = ?', [
    archivedMs,
    id,
    sql.house,
  ]);
}

/** Fills a point of a settings record that was left empty; false where it is told already or not there. */
export async function fillSettingsPoint(
  sql: Sql,
  condition: number,
  label: string,
  value: string,
): Promise<boolean> {
  const { affected } = await sql.change(
    "UPDATE settings_point SET value = ? WHERE condition_id = ? AND house_id = ? AND label = ? AND value = ''",
    [value, condition, sql.house, label],
  );
  return affected > 0;
}

/** Conditions of a device, inks and mode, on any stock. */
export async function listLikeConditions(
  sql: Sql,
  { deviceId, inkSet, mode }: Omit<ConditionKey, 'stockId'>,
): Promise<ConditionRow[]> {
  const rows = await sql.rows<StoredCondition>(
    `SELECT ${COLUMNS} WHERE c.house_id = ? AND ${THERE} AND c.archived_ms IS NULL AND c.device_id = ? AND c.mode = ? AND c.ink_set = ? ORDER BY c.id`,
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
  {
    readonly id: number;
    readonly device: string;
    readonly stock: string;
    readonly mode: string;
    readonly label: string;
  }[]
> {
  return sql.rows(
    `SELECT c.id, d.name AS device, s.name AS stock, c.mode, c.label FROM ${JOINED} WHERE c.house_id = ? AND ${THERE} AND c.archived_ms IS NULL
     ${words.map(() => "AND CONCAT_WS(' ', d.name, s.name, c.mode, c.label) LIKE ?").join(' ')} ORDER BY d.name, s.name, c.id LIMIT ?`,
    [sql.house, ...words, String(limit)],
  );
}

/** Locks a condition, so that those who add to its ledger follow each other; false where there is none. */
export function lockCondition(sql: Sql, id: number): Promise<boolean> {
  return lockRow(sql, 'printing_condition', id);
}

export async function insertCondition(
  sql: Sql,
  condition: ConditionKey & { readonly label: string; readonly copiedFrom: number | null },
  points: readonly SettingsPoint[],
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO printing_condition (house_id, device_id, stock_id, ink_set, mode, label, copied_from, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      condition.deviceId,
      condition.stockId,
      condition.inkSet,
      condition.mode,
      condition.label,
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
