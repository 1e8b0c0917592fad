import { createHash } from 'node:crypto';
import type { Sql } from './database.ts';

export type LinkName = 'evenness' | 'limits' | 'curves' | 'balance' | 'profile' | 'conformity' | 'watch';

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

/** A head, and the condition it stands on: another one than the result's own where it is borrowed. */
export interface HeadRow extends ResultRow {
  readonly headConditionId: number;
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
export function listHeads(sql: Sql, condition?: number): Promise<HeadRow[]> {
  const join = 'JOIN condition_head h ON h.result_id = r.id';
  return condition === undefined
    ? sql.rows(`SELECT h.condition_id AS headConditionId, ${COLUMNS} ${join}`)
    : sql.rows(`SELECT h.condition_id AS headConditionId, ${COLUMNS} ${join} WHERE h.condition_id = ?`, [
        condition,
      ]);
}

export async function removeHead(sql: Sql, condition: number, link: LinkName): Promise<void> {
  await sql.change('DELETE FROM condition_head WHERE condition_id = ? AND link = ?', [condition, link]);
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
  const only = condition === undefined ? '' : 'WHERE h.condition_id = ?';
  return sql.rows(
    `WITH RECURSIVE chain (condition_id, link, result_id, owner_id, depth) AS (
       SELECT h.condition_id, h.link, h.result_id, h.condition_id, 0 FROM condition_head h ${only}
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
    condition === undefined ? [] : [condition],
  );
}

/** The reading that a result was made from, the first where there are several. */
export async function sourceReadingOf(sql: Sql, result: number): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number }>(
    'SELECT reading_id AS id FROM result_source WHERE result_id = ? AND reading_id IS NOT NULL ORDER BY id LIMIT 1',
    [result],
  );
  return row?.id;
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
