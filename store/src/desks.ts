import type { Sql } from './database.ts';

/** What taking a desk over is judged by. */
export interface DeskCredentials {
  readonly id: number;
  readonly name: string;
  /** Hash of the code as argon2 writes it. */
  readonly code: string;
  readonly failures: number;
  readonly lockedMs: number;
}

/** Makes a session a desk. */
export async function setDesk(sql: Sql, digest: Uint8Array, name: string, endsMs: number): Promise<void> {
  await sql.change(
    'UPDATE person_session SET desk = ?, taken_by = NULL, taken_ms = NULL, ends_ms = ? WHERE digest = ? AND house_id = ?',
    [name, endsMs, Buffer.from(digest), sql.house],
  );
}

/** Says who works at a desk from now on; nobody where it is left. */
export async function setTaken(
  sql: Sql,
  digest: Uint8Array,
  taken: { readonly by: number; readonly atMs: number } | undefined,
): Promise<void> {
  await sql.change(
    'UPDATE person_session SET taken_by = ?, taken_ms = ? WHERE digest = ? AND house_id = ? AND desk IS NOT NULL',
    [taken?.by ?? null, taken?.atMs ?? null, Buffer.from(digest), sql.house],
  );
}

/** Keeps somebody's code; what was counted against the one before is forgotten, and no desk is theirs any more. */
export async function setDeskCode(sql: Sql, person: number, hash: string): Promise<void> {
  await sql.change(
    'UPDATE person SET desk_code = ?, code_failures = 0, code_locked_ms = 0 WHERE id = ? AND house_id = ?',
    [hash, person, sql.house],
  );
  await sql.change(
    'UPDATE person_session SET taken_by = NULL, taken_ms = NULL WHERE taken_by = ? AND house_id = ?',
    [person, sql.house],
  );
}

/** Everybody who can take a desk over. */
export function listDeskPeople(sql: Sql): Promise<{ readonly id: number; readonly name: string }[]> {
  return sql.rows(
    'SELECT id, name FROM person WHERE house_id = ? AND desk_code IS NOT NULL AND away_ms IS NULL ORDER BY name, id',
    [sql.house],
  );
}

export async function deskCredentials(sql: Sql, person: number): Promise<DeskCredentials | undefined> {
  const [row] = await sql.rows<DeskCredentials>(
    `SELECT id, name, desk_code AS code, code_failures AS failures, code_locked_ms AS lockedMs FROM person
     WHERE id = ? AND house_id = ? AND desk_code IS NOT NULL AND away_ms IS NULL`,
    [person, sql.house],
  );
  return row;
}
