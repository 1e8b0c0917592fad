import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import type { Sql } from './database.ts';

export interface ConditionRow {
  readonly id: number;
  readonly deviceId: number;
  readonly device: string;
  readonly deviceCode: string;
  readonly deviceDriver: string;
  readonly space: DeviceSpace;
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

const COLUMNS = `c.id, c.device_id AS deviceId, d.name AS device, d.code AS deviceCode, d.driver AS deviceDriver, d.space,
  c.stock_id AS stockId, s.name AS stock, s.driver AS stockDriver, s.finish, s.rest_minutes AS restMinutes,
  c.ink_set AS inkSet, c.mode, c.made_ms AS madeMs
  FROM printing_condition c JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id`;

export function listConditions(sql: Sql, afterId = 0, limit = 500): Promise<ConditionRow[]> {
  return sql.rows(`SELECT ${COLUMNS} WHERE c.id > ? ORDER BY c.id LIMIT ?`, [afterId, String(limit)]);
}

export async function findCondition(sql: Sql, id: number): Promise<ConditionRow | undefined> {
  const [row] = await sql.rows<ConditionRow>(`SELECT ${COLUMNS} WHERE c.id = ?`, [id]);
  return row;
}

export async function insertCondition(
  sql: Sql,
  condition: {
    readonly deviceId: number;
    readonly stockId: number;
    readonly inkSet: string;
    readonly mode: string;
    readonly copiedFrom: number | null;
  },
  points: readonly SettingsPoint[],
  author: number,
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO printing_condition (device_id, stock_id, ink_set, mode, copied_from, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [
      condition.deviceId,
      condition.stockId,
      condition.inkSet,
      condition.mode,
      condition.copiedFrom,
      author,
      nowMs,
    ],
  );
  for (const [position, point] of points.entries())
    await sql.change(
      'INSERT INTO settings_point (condition_id, position, label, value, tick_at_print) VALUES (?, ?, ?, ?, ?)',
      [id, position, point.label, point.value, point.tickAtPrint],
    );
  return id;
}

export async function listSettingsPoints(sql: Sql, condition: number): Promise<SettingsPoint[]> {
  const rows = await sql.rows<{ label: string; value: string; tickAtPrint: number }>(
    'SELECT label, value, tick_at_print AS tickAtPrint FROM settings_point WHERE condition_id = ? ORDER BY position',
    [condition],
  );
  return rows.map((row) => ({ ...row, tickAtPrint: row.tickAtPrint === 1 }));
}
