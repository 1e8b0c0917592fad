import { createHash } from 'node:crypto';
import { lockCondition } from './conditions.ts';
import type { Sql } from './database.ts';
import { LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';
import { lockRow } from './lockRow.ts';

export type LinkName = 'evenness' | 'limits' | 'curves' | 'balance' | 'profile' | 'conformity' | 'watch';

export interface ResultRow {
  readonly id: number;
  readonly conditionId: number;
  readonly link: LinkName;
  /** What kind of result it is, and which version of that kind's stored form it has. */
  readonly shape: string;
  readonly shapeVersion: number;
  readonly version: number;
  readonly verdict: string | null;
  /** JSON: the few figures that lists show. */
  readonly summary: string;
  readonly author: string;
  readonly madeMs: number;
  /** After how many days it is due again, where that was said. */
  readonly validDays: number | null;
  /** What a person noted of it; empty where nobody has. */
  readonly note: string;
}

/** A result with all it holds, as JSON. */
export interface WholeResultRow extends ResultRow {
  readonly detail: string;
}

/** A head, and the condition it stands on: another one than the result's own where it is borrowed. */
export interface HeadRow extends ResultRow {
  readonly headConditionId: number;
}

const COLUMNS = `r.id, r.condition_id AS conditionId, r.link, r.shape, r.shape_version AS shapeVersion, r.version, r.verdict, r.summary, p.name AS author, r.made_ms AS madeMs, r.valid_days AS validDays, r.note
  FROM result r JOIN person p ON p.id = r.author_id`;

/** Results of a link, the newest first. */
export async function listResults(
  sql: Sql,
  condition: number,
  links: readonly LinkName[],
  { after = LAST_ID, limit }: PageAsked,
): Promise<Page<ResultRow>> {
  const rows = await sql.rows<ResultRow>(
    `SELECT ${COLUMNS} WHERE r.condition_id = ? AND r.house_id = ? AND r.link IN (${links.map(() => '?').join(', ')}) AND r.id < ? ORDER BY r.id DESC LIMIT ?`,
    [condition, sql.house, ...links, after, String(limit + 1)],
  );
  return pageOf(rows, limit, ({ id }) => id);
}

/** Newest results of a shape of a condition, with all they hold. */
export function listResultsOfShape(
  sql: Sql,
  condition: number,
  shape: string,
  limit: number,
): Promise<WholeResultRow[]> {
  return sql.rows(
    `SELECT r.detail, ${COLUMNS} WHERE r.condition_id = ? AND r.house_id = ? AND r.shape = ? ORDER BY r.id DESC LIMIT ?`,
    [condition, sql.house, shape, String(limit)],
  );
}

/** Newest results of a shape over all conditions, with all they hold. */
export function listNewestOfShape(sql: Sql, shape: string, limit: number): Promise<WholeResultRow[]> {
  return sql.rows(
    `SELECT r.detail, ${COLUMNS} WHERE r.house_id = ? AND r.shape = ? ORDER BY r.id DESC LIMIT ?`,
    [sql.house, shape, String(limit)],
  );
}

/** A result with all it holds. */
export async function findResult(sql: Sql, id: number): Promise<WholeResultRow | undefined> {
  const [row] = await sql.rows<WholeResultRow>(
    `SELECT r.detail, ${COLUMNS} WHERE r.id = ? AND r.house_id = ?`,
    [id, sql.house],
  );
  return row;
}

const HEAD_JOIN = 'JOIN condition_head h ON h.result_id = r.id';

/** The results in force on a condition. */
export function listHeads(sql: Sql, condition: number): Promise<HeadRow[]> {
  return listHeadsOf(sql, [condition]);
}

/** The results in force on some conditions. */
export async function listHeadsOf(sql: Sql, conditions: readonly number[]): Promise<HeadRow[]> {
  if (conditions.length === 0) return [];
  return sql.rows(
    `SELECT h.condition_id AS headConditionId, ${COLUMNS} ${HEAD_JOIN} WHERE h.condition_id IN (${conditions.map(() => '?').join(', ')}) AND h.house_id = ?`,
    [...conditions, sql.house],
  );
}

/** The result of one link that is in force on a condition. */
export async function findHead(sql: Sql, condition: number, link: LinkName): Promise<HeadRow | undefined> {
  const [row] = await sql.rows<HeadRow>(
    `SELECT h.condition_id AS headConditionId, ${COLUMNS} ${HEAD_JOIN} WHERE h.condition_id = ? AND h.link = ? AND h.house_id = ?`,
    [condition, link, sql.house],
  );
  return row;
}

/** A head by the least that its mark needs. */
export interface HeadMark {
  readonly headConditionId: number;
  readonly link: LinkName;
  readonly id: number;
  readonly verdict: string | null;
  /** Where the result was made, which is another condition for a borrowed one. */
  readonly homeId: number;
  readonly madeMs: number;
  readonly validDays: number | null;
}

/** The results in force on all conditions, without what they hold. */
export function listHeadMarks(sql: Sql): Promise<HeadMark[]> {
  return sql.rows(
    'SELECT h.condition_id AS headConditionId, h.link, h.result_id AS id, r.verdict, r.condition_id AS homeId, r.made_ms AS madeMs, r.valid_days AS validDays FROM condition_head h JOIN result r ON r.id = h.result_id WHERE h.house_id = ?',
    [sql.house],
  );
}

/** What a result in force was made from. */
export interface HeadSource {
  readonly resultId: number;
  readonly parentId: number | null;
  /** 1 where it is a reading that was withdrawn, or read again after the result was made. */
  readonly changed: number;
}

export function listHeadSources(sql: Sql): Promise<HeadSource[]> {
  return sql.rows(
    `SELECT s.result_id AS resultId, s.source_result_id AS parentId,
       x.id IS NOT NULL AND (x.withdrawn_ms IS NOT NULL OR COALESCE(x.finished_ms > r.made_ms, 0)) AS changed
     FROM condition_head h JOIN result r ON r.id = h.result_id JOIN result_source s ON s.result_id = h.result_id
     LEFT JOIN reading x ON x.id = s.reading_id WHERE h.house_id = ?`,
    [sql.house],
  );
}

export async function removeHead(sql: Sql, condition: number, link: LinkName): Promise<void> {
  await sql.change('DELETE FROM condition_head WHERE condition_id = ? AND link = ? AND house_id = ?', [
    condition,
    link,
    sql.house,
  ]);
}

export interface NewResult {
  readonly conditionId: number;
  readonly link: LinkName;
  readonly shape: string;
  readonly shapeVersion: number;
  readonly verdict: string | null;
  readonly summary: unknown;
  readonly detail: unknown;
  readonly madeMs: number;
  readonly validDays?: number;
}

/** What a result was made from: readings, and results that must stay in force for it to be current. */
export interface ResultSources {
  readonly readings: readonly number[];
  readonly results: readonly number[];
}

/**
 * Stores a result as the next version of its link and puts it in force. The condition's row is locked first: results
 * that are made at once follow each other, where locks on versions that are not there yet would stop each other.
 */
export async function insertResult(
  sql: Sql,
  result: NewResult,
  sources: ResultSources,
  /** Whether it takes the place of the version that is in force. */
  inForce = true,
): Promise<{ readonly id: number; readonly version: number }> {
  if (!(await lockCondition(sql, result.conditionId)))
    throw new Error(`no condition ${result.conditionId} in house ${sql.house}`);
  const [last] = await sql.rows<{ version: number | null }>(
    'SELECT MAX(version) AS version FROM result WHERE condition_id = ? AND link = ?',
    [result.conditionId, result.link],
  );
  const version = (last?.version ?? 0) + 1;
  const { id } = await sql.change(
    'INSERT INTO result (house_id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms, valid_days) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      result.conditionId,
      result.link,
      result.shape,
      result.shapeVersion,
      version,
      result.verdict,
      JSON.stringify(result.summary),
      JSON.stringify(result.detail),
      sql.person,
      result.madeMs,
      result.validDays ?? null,
    ],
  );
  for (const reading of sources.readings)
    await sql.change('INSERT INTO result_source (house_id, result_id, reading_id) VALUES (?, ?, ?)', [
      sql.house,
      id,
      reading,
    ]);
  for (const source of sources.results)
    await sql.change('INSERT INTO result_source (house_id, result_id, source_result_id) VALUES (?, ?, ?)', [
      sql.house,
      id,
      source,
    ]);
  if (inForce) await setHead(sql, result.conditionId, result.link, id);
  return { id, version };
}

export async function setHead(sql: Sql, condition: number, link: LinkName, result: number): Promise<void> {
  await sql.change(
    'INSERT INTO condition_head (house_id, condition_id, link, result_id, author_id) VALUES (?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE result_id = VALUES(result_id), author_id = VALUES(author_id)',
    [sql.house, condition, link, result, sql.person],
  );
}

/**
 * Why a head is stale: something it was made from is no head any more, its reading was withdrawn or read again, or the
 * condition that lent it has a newer version.
 */
export type StaleReason = 'source' | 'withdrawn' | 'read again' | 'lent';

export interface StaleHead {
  readonly conditionId: number;
  readonly link: LinkName;
  readonly why: StaleReason;
  /** The link that changed, and the condition where it did. */
  readonly causeLink: LinkName;
  readonly causeConditionId: number;
}

/** Heads with a source, however far up, that is in force no more; the nearest cause first. */
export async function listStaleHeads(sql: Sql, condition?: number): Promise<StaleHead[]> {
  const only = condition === undefined ? '' : 'AND h.condition_id = ?';
  return sql.rows(
    `WITH RECURSIVE chain (condition_id, link, result_id, owner_id, depth) AS (
       SELECT h.condition_id, h.link, h.result_id, h.condition_id, 0 FROM condition_head h WHERE h.house_id = ? ${only}
       UNION ALL
       SELECT c.condition_id, c.link, s.source_result_id, r.condition_id, c.depth + 1
       FROM chain c JOIN result_source s ON s.result_id = c.result_id JOIN result r ON r.id = c.result_id
       WHERE s.source_result_id IS NOT NULL AND c.depth < 8
     )
     SELECT c.condition_id AS conditionId, c.link,
       CASE WHEN c.depth > 0 AND (own.result_id IS NULL OR own.result_id <> r.id) THEN 'source'
            WHEN x.withdrawn_ms IS NOT NULL THEN 'withdrawn' WHEN x.id IS NOT NULL THEN 'read again'
            ELSE 'lent' END AS why,
       r.link AS causeLink, r.condition_id AS causeConditionId
     FROM chain c
     JOIN result r ON r.id = c.result_id
     LEFT JOIN condition_head own ON own.condition_id = c.owner_id AND own.link = r.link
     LEFT JOIN condition_head lender ON lender.condition_id = r.condition_id AND lender.link = r.link
     LEFT JOIN result_source s ON s.result_id = c.result_id AND s.reading_id IS NOT NULL
     LEFT JOIN reading x ON x.id = s.reading_id AND (x.withdrawn_ms IS NOT NULL OR x.finished_ms > r.made_ms)
     WHERE x.id IS NOT NULL
       OR (c.depth > 0 AND (own.result_id IS NULL OR own.result_id <> r.id))
       OR (r.condition_id <> c.owner_id AND (lender.result_id IS NULL OR lender.result_id <> r.id))
     ORDER BY c.condition_id, c.link, c.depth`,
    condition === undefined ? [sql.house] : [sql.house, condition],
  );
}

/** The reading that a result was made from, the first where there are several. */
export async function sourceReadingOf(sql: Sql, result: number): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number }>(
    'SELECT reading_id AS id FROM result_source WHERE result_id = ? AND house_id = ? AND reading_id IS NOT NULL ORDER BY id LIMIT 1',
    [result, sql.house],
  );
  return row?.id;
}

/** The newest result of a link that was made from a reading. */
export async function resultOfReading(
  sql: Sql,
  reading: number,
  link: LinkName,
): Promise<{ readonly id: number; readonly madeMs: number } | undefined> {
  const [row] = await sql.rows<{ id: number; madeMs: number }>(
    'SELECT r.id, r.made_ms AS madeMs FROM result_source s JOIN result r ON r.id = s.result_id WHERE s.reading_id = ? AND s.house_id = ? AND r.link = ? ORDER BY r.id DESC LIMIT 1',
    [reading, sql.house, link],
  );
  return row;
}

/** The newest result of a link on a condition that was made from another result. */
export async function newestMadeFrom(
  sql: Sql,
  condition: number,
  link: LinkName,
  source: number,
): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number | null }>(
    `SELECT MAX(r.id) AS id FROM result r JOIN result_source s ON s.result_id = r.id
     WHERE r.condition_id = ? AND r.house_id = ? AND r.link = ? AND s.source_result_id = ?`,
    [condition, sql.house, link, source],
  );
  return row?.id ?? undefined;
}

/** Profiles whose names hold a text, the latest first. */
export function searchProfiles(
  sql: Sql,
  like: string,
  limit: number,
): Promise<
  { readonly id: number; readonly conditionId: number; readonly version: number; readonly name: string }[]
> {
  return sql.rows(
    "SELECT id, condition_id AS conditionId, version, JSON_VALUE(summary, '$.name') AS name FROM result WHERE house_id = ? AND shape = 'profile' AND JSON_VALUE(summary, '$.name') LIKE ? ORDER BY id DESC LIMIT ?",
    [sql.house, like, String(limit)],
  );
}

export interface FileRow {
  readonly name: string;
  readonly mediaType: string;
  readonly content: Buffer;
}

export async function insertResultFile(
  sql: Sql,
  result: number,
  role: string,
  file: FileRow,
  nowMs: number,
): Promise<void> {
  const sha = createHash('sha256').update(file.content).digest();
  const { id } = await sql.change(
    'INSERT INTO file (house_id, sha256, bytes, media_type, name, content, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, sha, file.content.length, file.mediaType, file.name, file.content, nowMs],
  );
  await sql.change('INSERT INTO result_file (house_id, result_id, role, file_id) VALUES (?, ?, ?, ?)', [
    sql.house,
    result,
    role,
    id,
  ]);
}

export async function findResultFile(sql: Sql, result: number, role: string): Promise<FileRow | undefined> {
  const [row] = await sql.rows<FileRow>(
    'SELECT f.name, f.media_type AS mediaType, f.content FROM result_file rf JOIN file f ON f.id = rf.file_id WHERE rf.result_id = ? AND rf.role = ? AND rf.house_id = ?',
    [result, role, sql.house],
  );
  return row;
}

/** Keeps a note with a result, in place of the one it had. */
export async function setResultNote(sql: Sql, id: number, note: string): Promise<void> {
  await sql.change('UPDATE result SET note = ? WHERE id = ? AND house_id = ?', [note, id, sql.house]);
}

/** Waits for others that change what hangs on a result. */
export async function lockResult(sql: Sql, id: number): Promise<void> {
  await lockRow(sql, 'result', id);
}

/** Results that a result was made from, in their order. */
export async function listSourceResults(sql: Sql, resultId: number): Promise<number[]> {
  const rows = await sql.rows<{ id: number }>(
    'SELECT source_result_id AS id FROM result_source WHERE result_id = ? AND house_id = ? AND source_result_id IS NOT NULL ORDER BY id',
    [resultId, sql.house],
  );
  return rows.map(({ id }) => id);
}

/** Results of the house after one of them, in the order they were made. */
export function listResultsAfter(sql: Sql, after: number, limit: number): Promise<WholeResultRow[]> {
  return sql.rows(`SELECT r.detail, ${COLUMNS} WHERE r.house_id = ? AND r.id > ? ORDER BY r.id LIMIT ?`, [
    sql.house,
    after,
    String(limit),
  ]);
}
