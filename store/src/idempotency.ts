import type { Sql } from './database.ts';

export interface StoredAnswer {
  readonly status: number;
  readonly body: string;
}

export async function findAnswer(sql: Sql, key: string): Promise<StoredAnswer | undefined> {
  const [row] = await sql.rows<StoredAnswer>(
    'SELECT status, body FROM idempotency_key WHERE request_key = ?',
    [key],
  );
  return row;
}

export async function storeAnswer(sql: Sql, key: string, answer: StoredAnswer, nowMs: number): Promise<void> {
  await sql.change(
    'INSERT IGNORE INTO idempotency_key (request_key, status, body, made_ms) VALUES (?, ?, ?, ?)',
    [key, answer.status, answer.body, nowMs],
  );
}
