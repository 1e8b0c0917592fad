import type { Sql } from './database.ts';

/** What makes a request the same as another: its route and its key, for the house and person that `sql` acts for. */
export interface RequestKey {
  readonly route: string;
  readonly key: string;
}

/**
 * Reserves a key within the transaction of the change itself. Whoever comes at once with the same key waits until that
 * transaction has ended. @returns the answer that was given before, or undefined where the change is still to be made.
 */
export async function reserveKey(
  sql: Sql,
  { route, key }: RequestKey,
  nowMs: number,
): Promise<string | undefined> {
  const { affected } = await sql.change(
    'INSERT IGNORE INTO idempotency_key (house_id, person_id, route, request_key, made_ms) VALUES (?, ?, ?, ?, ?)',
    [sql.house, sql.person, route, key, nowMs],
  );
  if (affected > 0) return undefined;
  const [row] = await sql.rows<{ body: string | null }>(
    'SELECT body FROM idempotency_key WHERE house_id = ? AND person_id = ? AND route = ? AND request_key = ?',
    [sql.house, sql.person, route, key],
  );
  return row?.body ?? undefined;
}

export async function storeAnswer(sql: Sql, { route, key }: RequestKey, body: string): Promise<void> {
  await sql.change(
    'UPDATE idempotency_key SET body = ? WHERE house_id = ? AND person_id = ? AND route = ? AND request_key = ?',
    [body, sql.house, sql.person, route, key],
  );
}

/** Forgets keys of all houses that were made before a time; gives how many. */
export async function purgeKeys(sql: Sql, beforeMs: number): Promise<number> {
  return (await sql.change('DELETE FROM idempotency_key WHERE made_ms < ? LIMIT 10000', [beforeMs])).affected;
}
