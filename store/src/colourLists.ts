import type { Sql } from './database.ts';
import { nextVersion } from './nextVersion.ts';

/** A version of a colour list, without its colours. */
export interface ColourListRow {
  readonly id: number;
  /** Versions of the same list share it. */
  readonly family: string;
  readonly version: number;
  readonly name: string;
  readonly note: string;
  /** Where its colours are from, in words. */
  readonly origin: string;
  readonly count: number;
  /** How many of its colours have a spectrum. */
  readonly spectra: number;
  readonly author: string;
  readonly madeMs: number;
  readonly removedMs: number | null;
  /** Largest ΔE00 that it allows its colours; null where it says nothing. */
  readonly tolerance: number | null;
}

const COLUMNS =
  'l.id, l.family, l.version, l.name, l.note, l.tolerance, l.origin, l.colour_count AS count, l.spectra, p.name AS author, l.made_ms AS madeMs, l.removed_ms AS removedMs';
const FROM = 'FROM colour_list l JOIN person p ON p.id = l.author_id';

/** The latest version of each list that was not removed. */
export function listColourLists(sql: Sql, limit: number): Promise<ColourListRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} ${FROM}
     JOIN (SELECT family, MAX(version) AS version FROM colour_list WHERE house_id = ? GROUP BY family) latest
       ON latest.family = l.family AND latest.version = l.version
     WHERE l.house_id = ? AND l.removed_ms IS NULL ORDER BY l.name, l.id LIMIT ?`,
    [sql.house, sql.house, String(limit)],
  );
}

/** All versions of a list, the latest first. */
export function listColourListVersions(sql: Sql, family: string): Promise<ColourListRow[]> {
  return sql.rows(`SELECT ${COLUMNS} ${FROM} WHERE l.house_id = ? AND l.family = ? ORDER BY l.version DESC`, [
    sql.house,
    family,
  ]);
}

/** Lists that are called like it, or hold a colour that is; with the names of their colours, one to a line. */
export function searchColourLists(
  sql: Sql,
  like: string,
  limit: number,
): Promise<(ColourListRow & { readonly names: string })[]> {
  return sql.rows(
    `SELECT ${COLUMNS}, l.colour_names AS names ${FROM}
     JOIN (SELECT family, MAX(version) AS version FROM colour_list WHERE house_id = ? GROUP BY family) latest
       ON latest.family = l.family AND latest.version = l.version
     WHERE l.house_id = ? AND l.removed_ms IS NULL AND (l.name LIKE ? OR l.colour_names LIKE ?) ORDER BY l.name, l.id LIMIT ?`,
    [sql.house, sql.house, like, like, String(limit)],
  );
}

/** A version with its colours, as JSON. */
export async function findColourList(
  sql: Sql,
  id: number,
): Promise<(ColourListRow & { readonly colours: string }) | undefined> {
  const [row] = await sql.rows<ColourListRow & { colours: string }>(
    `SELECT l.colours, ${COLUMNS} ${FROM} WHERE l.id = ? AND l.house_id = ?`,
    [id, sql.house],
  );
  return row;
}

export interface NewColourListRow extends Pick<
  ColourListRow,
  'family' | 'name' | 'note' | 'origin' | 'spectra' | 'madeMs' | 'tolerance'
> {
  readonly colours: readonly { readonly name: string }[];
}

/** Stores the next version of its family; of two at once the second waits and becomes the version after. */
export async function insertColourList(sql: Sql, row: NewColourListRow): Promise<number> {
  const version = await nextVersion(sql, 'colour_list', row.family);
  const { id } = await sql.change(
    'INSERT INTO colour_list (house_id, family, version, name, note, origin, colours, colour_names, colour_count, spectra, author_id, made_ms, tolerance) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      ...[sql.house, row.family, version, row.name, row.note, row.origin, JSON.stringify(row.colours)],
      ...[row.colours.map(({ name }) => name).join('\n'), row.colours.length, row.spectra],
      ...[sql.person, row.madeMs, row.tolerance],
    ],
  );
  return id;
}

/** Names all versions of a list anew, and says what it allows. */
export async function nameColourList(
  sql: Sql,
  family: string,
  { name, note, tolerance }: Pick<ColourListRow, 'name' | 'note' | 'tolerance'>,
): Promise<void> {
  await sql.change(
    'UPDATE colour_list SET name = ?, note = ?, tolerance = ? WHERE family = ? AND house_id = ?',
    [...[name, note, tolerance, family], sql.house],
  );
}

/** Marks all versions as removed, or takes that back. */
export async function setColourListRemoved(
  sql: Sql,
  family: string,
  removedMs: number | null,
): Promise<void> {
  await sql.change('UPDATE colour_list SET removed_ms = ? WHERE family = ? AND house_id = ?', [
    ...[removedMs, family],
    sql.house,
  ]);
}
