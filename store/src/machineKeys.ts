import type { Sql } from './database.ts';

export interface MachineKeyRow {
  readonly id: number;
  readonly name: string;
  readonly role: string;
  readonly author: string;
  readonly madeMs: number;
  readonly endsMs: number;
  readonly usedMs: number | null;
  readonly endedMs: number | null;
}

/** Keys of the house, the newest first. */
export function listMachineKeys(sql: Sql): Promise<MachineKeyRow[]> {
  return sql.rows(
    `SELECT k.id, k.name, k.role, p.name AS author, k.made_ms AS madeMs, k.ends_ms AS endsMs, k.used_ms AS usedMs, k.ended_ms AS endedMs
     FROM machine_key k JOIN person p ON p.id = k.person_id WHERE k.house_id = ? ORDER BY k.id DESC LIMIT 500`,
    [sql.house],
  );
}

export async function insertMachineKey(
  sql: Sql,
  key: Pick<MachineKeyRow, 'name' | 'role' | 'endsMs'> & { readonly digest: Uint8Array },
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO machine_key (house_id, person_id, name, role, digest, made_ms, ends_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, sql.person, key.name, key.role, Buffer.from(key.digest), nowMs, key.endsMs],
  );
  return id;
}

/** A key that can be used, with the role that whoever made it has today. */
export interface UsableKey {
  readonly id: number;
  readonly house: number;
  readonly person: number;
  readonly author: string;
  readonly role: string;
  readonly authorRole: string;
  readonly usedMs: number | null;
}

export async function findMachineKey(
  sql: Sql,
  digest: Uint8Array,
  nowMs: number,
): Promise<UsableKey | undefined> {
  const [row] = await sql.rows<UsableKey>(
    `SELECT k.id, k.house_id AS house, k.person_id AS person, p.name AS author, k.role, p.role AS authorRole, k.used_ms AS usedMs
     FROM machine_key k JOIN person p ON p.id = k.person_id
     WHERE k.digest = ? AND k.ends_ms > ? AND k.ended_ms IS NULL AND p.away_ms IS NULL`,
    [Buffer.from(digest), nowMs],
  );
  return row;
}

export async function noteKeyUse(sql: Sql, id: number, nowMs: number): Promise<void> {
  await sql.change('UPDATE machine_key SET used_ms = ? WHERE id = ?', [nowMs, id]);
}

/** Ends a key; false where the house has none of that number. */
export async function endMachineKey(sql: Sql, id: number, nowMs: number): Promise<boolean> {
  await sql.change('UPDATE machine_key SET ended_ms = COALESCE(ended_ms, ?) WHERE id = ? AND house_id = ?', [
    nowMs,
    id,
    sql.house,
  ]);
  const [row] = await sql.rows('SELECT 1 FROM machine_key WHERE id = ? AND house_id = ?', [id, sql.house]);
  return row !== undefined;
}
