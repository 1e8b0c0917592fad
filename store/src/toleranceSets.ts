import type { Sql } from './database.ts';
import { nextVersion } from './nextVersion.ts';

export interface ToleranceSetRow {
  readonly id: number;
  /** Versions of the same tolerance set share it; a shipped one's is its id in `core`. */
  readonly family: string;
  readonly version: number;
  readonly name: string;
  readonly source: string;
  readonly shipped: boolean;
  /** JSON of metrics and what goes with them. */
  readonly definition: string;
  readonly author: string;
  readonly madeMs: number;
  readonly removedMs: number | null;
}

const COLUMNS = `t.id, t.family, t.version, t.name, t.source, t.shipped, t.definition, p.name AS author, t.made_ms AS madeMs, t.removed_ms AS removedMs
  FROM tolerance_set t JOIN person p ON p.id = t.author_id`;

/** The latest version of each tolerance set that was not removed, in the order of their first versions. */
export async function listToleranceSets(sql: Sql): Promise<ToleranceSetRow[]> {
  const rows = await sql.rows<ToleranceSetRow>(
    `SELECT ${COLUMNS} JOIN (SELECT family, MAX(version) AS version, MIN(id) AS first FROM tolerance_set WHERE house_id = ? GROUP BY family) latest
       ON latest.family = t.family AND latest.version = t.version
     WHERE t.house_id = ? AND t.removed_ms IS NULL ORDER BY latest.first`,
    [sql.house, sql.house],
  );
  return rows.map(typed);
}

export async function listToleranceSetVersions(sql: Sql, family: string): Promise<ToleranceSetRow[]> {
  const rows = await sql.rows<ToleranceSetRow>(
    `SELECT ${COLUMNS} WHERE t.house_id = ? AND t.family = ? ORDER BY t.version DESC`,
    [sql.house, family],
  );
  return rows.map(typed);
}

export async function findToleranceSet(sql: Sql, id: number): Promise<ToleranceSetRow | undefined> {
  const [row] = await sql.rows<ToleranceSetRow>(`SELECT ${COLUMNS} WHERE t.id = ? AND t.house_id = ?`, [
    id,
    sql.house,
  ]);
  return row === undefined ? undefined : typed(row);
}

export interface NewToleranceSetRow {
  readonly family: string;
  readonly name: string;
  readonly source: string;
  readonly shipped: boolean;
  readonly definition: unknown;
  readonly madeMs: number;
}

/** Stores the next version of its family; of two at once the second waits and becomes the version after. */
export async function insertToleranceSet(sql: Sql, row: NewToleranceSetRow): Promise<number> {
  const version = await nextVersion(sql, 'tolerance_set', row.family);
  const { id } = await sql.change(
    'INSERT INTO tolerance_set (house_id, family, version, name, source, shipped, definition, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      row.family,
      version,
      row.name,
      row.source,
      row.shipped,
      JSON.stringify(row.definition),
      sql.person,
      row.madeMs,
    ],
  );
  return id;
}

/** Marks all versions as removed, or takes that back. */
export async function setToleranceSetRemoved(
  sql: Sql,
  family: string,
  removedMs: number | null,
): Promise<number> {
  const { affected } = await sql.change(
    'UPDATE tolerance_set SET removed_ms = ? WHERE family = ? AND house_id = ? AND shipped = 0',
    [removedMs, family, sql.house],
  );
  return affected;
}

function typed(row: ToleranceSetRow): ToleranceSetRow {
  return { ...row, shipped: Boolean(row.shipped) };
}
