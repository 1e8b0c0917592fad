import type { InkCosts } from '@melto/core/stock/inkCosts';
import type { InkKind } from '@melto/core/stock/inkKinds';
import type { Sql } from './database.ts';
import { hasName } from './devices.ts';

/** An ink set by its name, which devices and conditions use. */
export interface InkSetRow {
  readonly id: number;
  readonly name: string;
  /** Empty where it was not told. */
  readonly kind: InkKind | '';
  /** How long it dries on any stock; null where the stock alone says. */
  readonly restMinutes: number | null;
  /** Of each ink, in the order of the channels; empty where nobody has told. */
  readonly costs: InkCosts;
  readonly note: string;
  readonly awayMs: number | null;
}

export async function listInkSets(sql: Sql): Promise<InkSetRow[]> {
  const rows = await sql.rows<Omit<InkSetRow, 'costs'> & { costs: string }>(
    'SELECT id, name, kind, rest_minutes AS restMinutes, costs, note, away_ms AS awayMs FROM ink_set WHERE house_id = ? ORDER BY name',
    [sql.house],
  );
  return rows.map((row) => ({ ...row, costs: row.costs === '' ? [] : (JSON.parse(row.costs) as InkCosts) }));
}

const costsText = (costs: InkCosts): string => (costs.length === 0 ? '' : JSON.stringify(costs));

/** Keeps an ink set by its name; one that is there stays as it is. */
export async function keepInkSet(sql: Sql, name: string, nowMs: number): Promise<void> {
  await sql.change('INSERT IGNORE INTO ink_set (house_id, name, author_id, made_ms) VALUES (?, ?, ?, ?)', [
    sql.house,
    name,
    sql.person,
    nowMs,
  ]);
}

type InkSetData = Omit<InkSetRow, 'id' | 'awayMs'>;

/** Stores an ink set; undefined where the house has one of that name. */
export async function insertInkSet(sql: Sql, row: InkSetData, nowMs: number): Promise<number | undefined> {
  const { id, affected } = await sql.change(
    'INSERT IGNORE INTO ink_set (house_id, name, kind, rest_minutes, costs, note, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      ...[sql.house, row.name, row.kind, row.restMinutes, costsText(row.costs), row.note],
      ...[sql.person, nowMs],
    ],
  );
  return affected === 0 ? undefined : id;
}

/** Changes an ink set, and its name wherever it is used; false where another has its name. */
export async function updateInkSet(sql: Sql, before: InkSetRow, next: InkSetData): Promise<boolean> {
  await sql.change(
    'UPDATE IGNORE ink_set SET name = ?, kind = ?, rest_minutes = ?, costs = ?, note = ? WHERE id = ? AND house_id = ?',
    [next.name, next.kind, next.restMinutes, costsText(next.costs), next.note, before.id, sql.house],
  );
  if (!(await hasName(sql, 'ink_set', before.id, next.name))) return false;
  for (const table of ['device', 'printing_condition'])
    await sql.change(`UPDATE ${table} SET ink_set = ? WHERE ink_set = ? AND house_id = ?`, [
      next.name,
      before.name,
      sql.house,
    ]);
  return true;
}

/** Conditions that print with each ink set, archived ones too, by its name in lower case. */
export async function countInkSetUses(sql: Sql): Promise<ReadonlyMap<string, number>> {
  const rows = await sql.rows<{ name: string; uses: number }>(
    'SELECT ink_set AS name, COUNT(*) AS uses FROM printing_condition WHERE house_id = ? AND deleted_ms IS NULL GROUP BY ink_set',
    [sql.house],
  );
  return new Map(rows.map(({ name, uses }) => [name.toLowerCase(), Number(uses)]));
}
