import type { Sql } from './database.ts';
import { holding } from './page.ts';

/** Something that somebody changed. */
export interface ActRow {
  readonly id: number;
  readonly atMs: number;
  readonly person: string;
  /** Name of the key that did it in their name; null where they did it themselves. */
  readonly key: string | null;
  /** Address that it came from, as the server was told. */
  readonly origin: string;
  readonly what: string;
  /** What it was done to, as the address of the request names it. */
  readonly object: string;
  /** What was sent, as JSON; never a passphrase. */
  readonly detail: string;
}

export async function insertAct(
  sql: Sql,
  act: Pick<ActRow, 'atMs' | 'origin' | 'what' | 'object' | 'detail'> & { readonly keyId: number | null },
): Promise<void> {
  await sql.change(
    'INSERT INTO act (house_id, person_id, machine_key_id, at_ms, origin, what, object, detail) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [sql.house, sql.person, act.keyId, act.atMs, act.origin, act.what, act.object, act.detail],
  );
}

/** Acts of the house that have some words, the newest first. */
export function listActs(
  sql: Sql,
  { find, before, limit }: { readonly find: string; readonly before: number; readonly limit: number },
): Promise<ActRow[]> {
  const like = holding(find);
  return sql.rows(
    `SELECT a.id, a.at_ms AS atMs, p.name AS person, k.name AS \`key\`, a.origin, a.what, a.object, a.detail
     FROM act a JOIN person p ON p.id = a.person_id LEFT JOIN machine_key k ON k.id = a.machine_key_id
     WHERE a.house_id = ? AND a.id < ? AND (a.what LIKE ? OR a.object LIKE ? OR p.name LIKE ? OR a.detail LIKE ?)
     ORDER BY a.id DESC LIMIT ?`,
    [sql.house, before, like, like, like, like, String(limit)],
  );
}
