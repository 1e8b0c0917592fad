import type { Sql } from './database.ts';

/** What a sheet that was printed through a result says of it. */
export interface ReachedRow {
  readonly resultId: number;
  readonly readingId: number;
  readonly verdict: string;
  /** JSON: the few figures that lists show, and all of it. */
  readonly summary: string;
  readonly detail: string;
  readonly madeMs: number;
}

/** Stores a verdict; a strip that is read again replaces it. */
export async function upsertReached(sql: Sql, row: ReachedRow): Promise<void> {
  await sql.change(
    `INSERT INTO result_reached (house_id, result_id, reading_id, verdict, summary, detail, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE verdict = VALUES(verdict), summary = VALUES(summary), detail = VALUES(detail), made_ms = VALUES(made_ms)`,
    [sql.house, row.resultId, row.readingId, row.verdict, row.summary, row.detail, row.madeMs],
  );
}

/** The newest verdict on a result from a reading that stands, of one condition: a borrower has verdicts of its own. */
export async function latestReached(
  sql: Sql,
  result: number,
  condition: number,
): Promise<ReachedRow | undefined> {
  const [row] = await sql.rows<ReachedRow>(
    `SELECT x.result_id AS resultId, x.reading_id AS readingId, x.verdict, x.summary, x.detail, x.made_ms AS madeMs
     FROM result_reached x JOIN reading r ON r.id = x.reading_id JOIN print p ON p.id = r.print_id
     WHERE x.result_id = ? AND p.condition_id = ? AND x.house_id = ? AND r.withdrawn_ms IS NULL ORDER BY x.reading_id DESC LIMIT 1`,
    [result, condition, sql.house],
  );
  return row;
}

/** Newest verdicts on all results in force, without their details. */
export function listReachedHeads(
  sql: Sql,
  condition?: number,
): Promise<
  {
    readonly conditionId: number;
    readonly link: string;
    readonly verdict: string;
    readonly summary: string;
  }[]
> {
  const where = condition === undefined ? '' : 'AND h.condition_id = ?';
  return sql.rows(
    `SELECT h.condition_id AS conditionId, h.link, x.verdict, x.summary
     FROM condition_head h
     JOIN (SELECT x2.result_id, p2.condition_id, MAX(x2.reading_id) AS reading_id
           FROM result_reached x2 JOIN reading r2 ON r2.id = x2.reading_id JOIN print p2 ON p2.id = r2.print_id
           WHERE x2.house_id = ? AND r2.withdrawn_ms IS NULL GROUP BY x2.result_id, p2.condition_id) newest
       ON newest.result_id = h.result_id AND newest.condition_id = h.condition_id
     JOIN result_reached x ON x.result_id = newest.result_id AND x.reading_id = newest.reading_id WHERE h.house_id = ? ${where}`,
    [sql.house, sql.house, ...(condition === undefined ? [] : [condition])],
  );
}

/** Newest verdicts on all results in force. */
export function listReachedMarks(
  sql: Sql,
): Promise<{ readonly conditionId: number; readonly link: string; readonly verdict: string }[]> {
  return sql.rows(
    `SELECT h.condition_id AS conditionId, h.link, x.verdict
     FROM (SELECT x2.result_id, p2.condition_id, MAX(x2.reading_id) AS reading_id
           FROM result_reached x2 JOIN reading r2 ON r2.id = x2.reading_id JOIN print p2 ON p2.id = r2.print_id
           WHERE x2.house_id = ? AND r2.withdrawn_ms IS NULL GROUP BY x2.result_id, p2.condition_id) newest
     JOIN condition_head h ON h.result_id = newest.result_id AND h.condition_id = newest.condition_id
     JOIN result_reached x ON x.result_id = newest.result_id AND x.reading_id = newest.reading_id`,
    [sql.house],
  );
}
