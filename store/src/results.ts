import { createHash } from 'node:crypto';
import type { Sql } from './database.ts';

export type LinkName = 'profile' | 'conformity';

export interface ResultRow {
  readonly id: number;
  readonly conditionId: number;
  readonly link: LinkName;
  readonly version: number;
  readonly verdict: string | null;
  /** JSON: the few figures that lists show. */
  readonly summary: string;
  readonly author: string;
  readonly madeMs: number;
}

const COLUMNS = `r.id, r.condition_id AS conditionId, r.link, r.version, r.verdict, r.summary, p.name AS author, r.made_ms AS madeMs
  FROM result r JOIN person p ON p.id = r.author_id`;

export function listResults(sql: Sql, condition: number): Promise<ResultRow[]> {
  return sql.rows(`SELECT ${COLUMNS} WHERE r.condition_id = ? ORDER BY r.id DESC LIMIT 200`, [condition]);
}

/** A result with all it holds. */
export async function findResult(
  sql: Sql,
  id: number,
): Promise<(ResultRow & { readonly detail: string }) | undefined> {
  const [row] = await sql.rows<ResultRow & { detail: string }>(`SELECT r.detail, ${COLUMNS} WHERE r.id = ?`, [
    id,
  ]);
  return row;
}

/** The results in force, for one condition or for all. */
export function listHeads(sql: Sql, condition?: number): Promise<ResultRow[]> {
  const join = 'JOIN condition_head h ON h.result_id = r.id';
  return condition === undefined
    ? sql.rows(`SELECT ${COLUMNS} ${join}`)
    : sql.rows(`SELECT ${COLUMNS} ${join} WHERE h.condition_id = ?`, [condition]);
}

/** Stores a result as the next version of its link and puts it in force. */
export async function insertResult(
  sql: Sql,
  result: {
    readonly conditionId: number;
    readonly link: LinkName;
    readonly verdict: string | null;
    readonly summary: unknown;
    readonly detail: unknown;
    readonly madeMs: number;
  },
  sources: { readonly readings: readonly number[]; readonly results: readonly number[] },
  author: number,
): Promise<{ readonly id: number; readonly version: number }> {
  const [last] = await sql.rows<{ version: number | null }>(
    'SELECT MAX(version) AS version FROM result WHERE condition_id = ? AND link = ? FOR UPDATE',
    [result.conditionId, result.link],
  );
  const version = (last?.version ?? 0) + 1;
  const { id } = await sql.change(
    'INSERT INTO result (condition_id, link, version, verdict, summary, detail, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      result.conditionId,
      result.link,
      version,
      result.verdict,
      JSON.stringify(result.summary),
      JSON.stringify(result.detail),
      author,
      result.madeMs,
    ],
  );
  for (const reading of sources.readings)
    await sql.change('INSERT INTO result_source (result_id, reading_id) VALUES (?, ?)', [id, reading]);
  for (const source of sources.results)
    await sql.change('INSERT INTO result_source (result_id, source_result_id) VALUES (?, ?)', [id, source]);
  await setHead(sql, result.conditionId, result.link, id);
  return { id, version };
}

export async function setHead(sql: Sql, condition: number, link: LinkName, result: number): Promise<void> {
  await sql.change(
    'INSERT INTO condition_head (condition_id, link, result_id) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE result_id = VALUES(result_id)',
    [condition, link, result],
  );
}

/** Why a head is stale: a result it was made from is no head any more, or its reading was withdrawn or read again. */
export type StaleReason = 'source' | 'withdrawn' | 'read again';

export interface StaleHead {
  readonly conditionId: number;
  readonly link: LinkName;
  readonly why: StaleReason;
}

export async function listStaleHeads(sql: Sql): Promise<StaleHead[]> {
  return sql.rows(
    `SELECT h.condition_id AS conditionId, h.link,
       CASE WHEN rd.withdrawn_ms IS NOT NULL THEN 'withdrawn' WHEN rd.id IS NOT NULL THEN 'read again' ELSE 'source' END AS why
     FROM condition_head h
     JOIN result r ON r.id = h.result_id
     JOIN result_source s ON s.result_id = h.result_id
     LEFT JOIN reading rd ON rd.id = s.reading_id
     LEFT JOIN result sr ON sr.id = s.source_result_id
     LEFT JOIN condition_head sh ON sh.condition_id = sr.condition_id AND sh.link = sr.link
     WHERE rd.withdrawn_ms IS NOT NULL OR rd.finished_ms > r.made_ms OR (sr.id IS NOT NULL AND sh.result_id <> sr.id)`,
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
    'INSERT INTO file (sha256, bytes, media_type, name, content, made_ms) VALUES (?, ?, ?, ?, ?, ?)',
    [sha, file.content.length, file.mediaType, file.name, file.content, nowMs],
  );
  await sql.change('INSERT INTO result_file (result_id, role, file_id) VALUES (?, ?, ?)', [result, role, id]);
}

export async function findResultFile(sql: Sql, result: number, role: string): Promise<FileRow | undefined> {
  const [row] = await sql.rows<FileRow>(
    'SELECT f.name, f.media_type AS mediaType, f.content FROM result_file rf JOIN file f ON f.id = rf.file_id WHERE rf.result_id = ? AND rf.role = ?',
    [result, role],
  );
  return row;
}
