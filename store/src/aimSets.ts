import type { Sql } from './database.ts';

export type AimSetSource = 'published' | 'data' | 'profile' | 'reading' | 'by hand';

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
  readonly patches: number;
  readonly author: string;
  readonly madeMs: number;
  readonly removedMs: number | null;
}

const COLUMNS = `a.id, a.family, a.version, a.name, a.origin, a.source, a.conditions, a.patches, p.name AS author, a.made_ms AS madeMs, a.removed_ms AS removedMs`;

/** The latest version of each aim set that was not removed. */
export function listAimSets(sql: Sql): Promise<AimSetRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id
     JOIN (SELECT family, MAX(version) AS version FROM aim_set GROUP BY family) latest
       ON latest.family = a.family AND latest.version = a.version
     WHERE a.removed_ms IS NULL ORDER BY a.family NOT LIKE 'own-%', a.name LIMIT 500`,
  );
}

export function listAimSetVersions(sql: Sql, family: string): Promise<AimSetRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id WHERE a.family = ? ORDER BY a.version DESC LIMIT 200`,
    [family],
  );
}

export async function findAimSet(
  sql: Sql,
  id: number,
): Promise<(AimSetRow & { readonly reference: string | null }) | undefined> {
  const [row] = await sql.rows<AimSetRow & { reference: string | null }>(
    `SELECT a.reference, ${COLUMNS} FROM aim_set a JOIN person p ON p.id = a.author_id WHERE a.id = ?`,
    [id],
  );
  return row;
}

export interface NewAimSetRow {
  readonly family: string;
  readonly name: string;
  readonly origin: string;
  readonly source: AimSetSource;
  readonly conditions: unknown;
  readonly patches: number;
  /** CGATS; none where all follows from published solids. */
  readonly reference: string | null;
  readonly madeMs: number;
}

/** Stores the next version of its family. */
export async function insertAimSet(sql: Sql, row: NewAimSetRow, author: number): Promise<number> {
  const { id } = await sql.change(
    `INSERT INTO aim_set (family, version, name, origin, source, conditions, patches, reference, author_id, made_ms)
     SELECT ?, COALESCE(MAX(version), 0) + 1, ?, ?, ?, ?, ?, ?, ?, ? FROM aim_set WHERE family = ?`,
    [
      row.family,
      row.name,
      row.origin,
      row.source,
      JSON.stringify(row.conditions),
      row.patches,
      row.reference,
      author,
      row.madeMs,
      row.family,
    ],
  );
  return id;
}

/** Marks all versions as removed, or takes that back. */
export async function setAimSetRemoved(sql: Sql, family: string, removedMs: number | null): Promise<number> {
  const { affected } = await sql.change('UPDATE aim_set SET removed_ms = ? WHERE family = ?', [
    removedMs,
    family,
  ]);
  return affected;
}
