import type { Sql } from './database.ts';

/** A profile that jobs of inks carry. */
export interface SourceProfileRow {
  readonly id: number;
  readonly name: string;
}

/** A source profile with its digest and day. */
export interface DatedSourceProfile extends SourceProfileRow {
  readonly digest: string;
  readonly madeMs: number;
}

/** Source profiles with what a shelf finds them by, the newest first. */
export function listDatedSourceProfiles(sql: Sql, limit: number): Promise<DatedSourceProfile[]> {
  return sql.rows(
    'SELECT id, name, LOWER(HEX(digest)) AS digest, made_ms AS madeMs FROM source_profile WHERE house_id = ? ORDER BY id DESC LIMIT ?',
    [sql.house, String(limit)],
  );
}

/** Source profiles of the house, the newest first. */
export function listSourceProfiles(sql: Sql, limit: number): Promise<SourceProfileRow[]> {
  return sql.rows('SELECT id, name FROM source_profile WHERE house_id = ? ORDER BY id DESC LIMIT ?', [
    sql.house,
    String(limit),
  ]);
}

export async function findSourceProfile(
  sql: Sql,
  id: number,
): Promise<(SourceProfileRow & { readonly content: Uint8Array }) | undefined> {
  const [row] = await sql.rows<SourceProfileRow & { content: Buffer }>(
    'SELECT id, name, content FROM source_profile WHERE id = ? AND house_id = ?',
    [id, sql.house],
  );
  return row;
}

/** Keeps a source profile and gives its id; a file that is there already keeps the id it has. */
export async function keepSourceProfile(
  sql: Sql,
  profile: { readonly digest: Uint8Array; readonly name: string; readonly content: Uint8Array },
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO source_profile (house_id, digest, name, content, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE id = LAST_INSERT_ID(id)',
    [
      ...[sql.house, Buffer.from(profile.digest), profile.name, Buffer.from(profile.content)],
      ...[sql.person, nowMs],
    ],
  );
  return id;
}
