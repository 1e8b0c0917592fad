import type { Sql } from './database.ts';
import { lockRow } from './lockRow.ts';

/**
 * The version that comes next in a family of aim sets, tolerance sets or colour lists. The house's row is locked, so that two that
 * add to one family follow each other: a lock on versions that are not there yet would let both wait for each other.
 */
export async function nextVersion(
  sql: Sql,
  table: 'aim_set' | 'tolerance_set' | 'colour_list',
  family: string,
): Promise<number> {
  await lockRow(sql, 'house', sql.house);
  const [row] = await sql.rows<{ version: number | null }>(
    `SELECT MAX(version) AS version FROM ${table} WHERE house_id = ? AND family = ?`,
    [sql.house, family],
  );
  return (row?.version ?? 0) + 1;
}
