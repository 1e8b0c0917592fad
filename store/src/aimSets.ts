import type { Sql } from './database.ts';
import { nextVersion } from './nextVersion.ts';

export type AimSetSource = 'published' | 'data' | 'profile' | 'reading' | 'by hand' | 'on paper';

export interface AimSetRow {
  readonly id: number;
  /** Versions of the same aim set share it; a published condition's is its name. */
  readonly family: string;
  readonly version: number;
  readonly name: string;
  readonly origin: string;
  readonly source: AimSetSource;
  /** JSON of the conditions of measurement. */
  readonly conditions: string;
  /** JSON of the paper it was moved to; null where it was not. */
  readonly moved: string | null;
  readonly patches: number;
  readonly author: string;
  readonly madeMs: number;
  readonly removedMs: number | null;
}

const COLUMNS = `a.id, a.family, a.version, a.name, a.origin, a.source, a.conditions, a.moved, a.patches, p.name AS author, a.made_ms AS madeMs, a.removed_ms AS removedMs`;

/** The latest version of each aim set that was not removed. */
export function listAimSets(sql: Sql): Promise<AimSetRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id
     JOIN (SELECT family, MAX(version) AS version FROM aim_set WHERE house_id = ? GROUP BY family) latest
       ON latest.family = a.family AND latest.version = a.version
     WHERE a.house_id = ? AND a.removed_ms IS NULL ORDER BY a.family NOT LIKE 'own-%', a.name`,
    [sql.house, sql.house],
  );
}

export function listAimSetVersions(sql: Sql, family: string): Promise<AimSetRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id WHERE a.house_id = ? AND a.family = ? ORDER BY a.version DESC`,
    [sql.house, family],
  );
}

export async function findAimSet(
  sql: Sql,
  id: number,
): Promise<(AimSetRow & { readonly reference: string | null }) | undefined> {
  const [row] = await sql.rows<AimSetRow & { reference: string | null }>(
    `SELECT a.reference, ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id WHERE a.id = ? AND a.house_id = ?`,
    [id, sql.house],
  );
  return row;
}

export interface NewAimSetRow {
  readonly family: string;
  readonly name: string;
  readonly origin: string;
  readonly source: AimSetSource;
  readonly conditions: unknown;
  readonly moved?: unknown;
  readonly patches: number;
  /** CGATS; none where all follows from published solids. */
  readonly reference: string | null;
  readonly madeMs: number;
}

/** Families that are there, with whether their data are whole; own ones left out. */
export function listPublishedFamilies(
  sql: Sql,
): Promise<{ readonly family: string; readonly source: AimSetSource }[]> {
  return sql.rows("SELECT family, source FROM aim_set WHERE house_id = ? AND family NOT LIKE 'own-%'", [
    sql.house,
  ]);
}

/** Stores the next version of its family; of two at once the second waits and becomes the version after. */
export async function insertAimSet(sql: Sql, row: NewAimSetRow): Promise<number> {
  const version = await nextVersion(sql, 'aim_set', row.family);
  const { id } = await sql.change(
    'INSERT INTO aim_set (house_id, family, version, name, origin, source, conditions, moved, patches, reference, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      row.family,
      version,
      row.name,
      row.origin,
      row.source,
      JSON.stringify(row.conditions),
      row.moved === undefined ? null : JSON.stringify(row.moved),
      row.patches,
      row.reference,
      sql.person,
      row.madeMs,
    ],
  );
  return id;
}

/** Marks all versions as removed, or takes that back. */
export async function setAimSetRemoved(sql: Sql, family: string, removedMs: number | null): Promise<number> {
  const { affected } = await sql.change(
    'UPDATE aim_set SET removed_ms = ? WHERE family = ? AND house_id = ?',
    [removedMs, family, sql.house],
  );
  return affected;
}
