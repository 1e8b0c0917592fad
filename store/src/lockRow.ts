import type { Sql } from './database.ts';

/** What a row must be besides, to be there at all. */
const THERE: Readonly<Record<string, string>> = { printing_condition: ' AND deleted_ms IS NULL' };

/**
 * Keeps others from a row of the house until the transaction ends. A cluster knows a lock on the node that it was taken
 * on alone: there it is written down as well, so that of two transactions on two nodes that want the same row the
 * second to end is undone, and run again.
 * @returns whether there is such a row.
 */
export async function lockRow(
  sql: Sql,
  table: 'house' | 'device' | 'printing_condition' | 'result' | 'print' | 'feed' | 'press_run',
  id: number,
): Promise<boolean> {
  const [columns, values] =
    table === 'house' ? ['id = ?', [id]] : ['id = ? AND house_id = ?', [id, sql.house]];
  const found = await sql.rows(
    `SELECT id FROM ${table} WHERE ${columns}${THERE[table] ?? ''} FOR UPDATE`,
    values,
  );
  if (sql.cluster)
    await sql.change(
      'INSERT INTO held (what, row_id, times) VALUES (?, ?, 1) ON DUPLICATE KEY UPDATE times = times + 1',
      [table, id],
    );
  return found.length > 0;
}
