import type { Sql } from './database.ts';

/**
 * Sets columns of a row of the house. Counted by finding it: what is set to what it was counts as no row changed.
 * @returns whether there is such a row.
 */
export async function updateFound(
  sql: Sql,
  table: 'kept_profile' | 'viewing_light' | 'paper_trial' | 'feed',
  id: number,
  columns:
    | 'run_id = ?, by_itself = ?'
    | 'last_ms = ?, trouble = ?'
    | 'origin = ?, note = ?'
    | 'name = ?, note = ?'
    | 'away_ms = ?'
    | 'removed_ms = ?'
    | 'uv_share = ?, uv_low = ?, uv_high = ?, uv_ms = ?',
  values: readonly (string | number | boolean | null)[],
): Promise<boolean> {
  const found = await sql.rows(`SELECT id FROM ${table} WHERE id = ? AND house_id = ? FOR UPDATE`, [
    id,
    sql.house,
  ]);
  await sql.change(`UPDATE ${table} SET ${columns} WHERE id = ? AND house_id = ?`, [
    ...values,
    id,
    sql.house,
  ]);
  return found.length > 0;
}
