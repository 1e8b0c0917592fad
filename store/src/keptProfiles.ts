import type { Sql } from './database.ts';
import { updateFound } from './updateFound.ts';

/** A profile from outside that the house keeps, without its bytes. */
export interface KeptProfileRow {
  readonly id: number;
  readonly name: string;
  /** Colour space of its device values, as the file spells it. */
  readonly space: string;
  readonly origin: string;
  readonly note: string;
  readonly digest: string;
  readonly madeMs: number;
}

/** Those that are on the shelf, the newest first. */
export function listKeptProfiles(sql: Sql, limit: number): Promise<KeptProfileRow[]> {
  return sql.rows(
    'SELECT id, name, space, origin, note, LOWER(HEX(digest)) AS digest, made_ms AS madeMs FROM kept_profile WHERE house_id = ? AND away_ms IS NULL ORDER BY id DESC LIMIT ?',
    [sql.house, String(limit)],
  );
}

export async function findKeptProfile(
  sql: Sql,
  id: number,
): Promise<{ readonly name: string; readonly content: Uint8Array } | undefined> {
  const [row] = await sql.rows<{ name: string; content: Buffer }>(
    'SELECT name, content FROM kept_profile WHERE id = ? AND house_id = ?',
    [id, sql.house],
  );
  return row;
}

/** Keeps a profile and gives its id; a file that was kept before, away or not, is told anew where it is from. */
export async function keepProfile(
  sql: Sql,
  profile: Pick<KeptProfileRow, 'name' | 'space' | 'origin' | 'note'> & {
    readonly digest: Uint8Array;
    readonly content: Uint8Array;
  },
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    `INSERT INTO kept_profile (house_id, digest, name, space, origin, note, content, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE id = LAST_INSERT_ID(id), origin = VALUES(origin), note = VALUES(note), away_ms = NULL`,
    [
      ...[sql.house, Buffer.from(profile.digest), profile.name, profile.space, profile.origin, profile.note],
      ...[Buffer.from(profile.content), sql.person, nowMs],
    ],
  );
  return id;
}

/** Whether there was such a profile. */
export function changeKeptProfile(
  sql: Sql,
  id: number,
  { origin, note }: Pick<KeptProfileRow, 'origin' | 'note'>,
): Promise<boolean> {
  return updateFound(sql, 'kept_profile', id, 'origin = ?, note = ?', [origin, note]);
}

/** Whether there was such a profile. */
export function setKeptProfileAway(sql: Sql, id: number, awayMs: number | null): Promise<boolean> {
  return updateFound(sql, 'kept_profile', id, 'away_ms = ?', [awayMs]);
}
