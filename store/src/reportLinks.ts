import type { Sql } from './database.ts';

/** What a public link shows: the report of a result, or the analysis of a run as it was asked for. */
export type ReportOf =
  | { readonly resultId: number; readonly runId?: undefined }
  | { readonly runId: number; readonly asked: string; readonly resultId?: undefined };

/** A public link to a report. */
export interface ReportLinkRow {
  readonly code: string;
  readonly resultId: number | null;
  readonly runId: number | null;
  /** Which of a run's analyses it is, as its maker wrote it. */
  readonly asked: string | null;
  readonly madeMs: number;
  readonly endedMs: number | null;
}

const COLUMNS =
  'code, result_id AS resultId, run_id AS runId, asked, made_ms AS madeMs, ended_ms AS endedMs FROM report_link';

/** A link by its code alone: who follows it belongs to no house. */
export async function findReportLink(
  sql: Sql,
  code: string,
): Promise<(ReportLinkRow & { readonly houseId: number }) | undefined> {
  const [row] = await sql.rows<ReportLinkRow & { houseId: number }>(
    `SELECT house_id AS houseId, ${COLUMNS} WHERE code = ?`,
    [code],
  );
  return row;
}

const WHICH = '(result_id = ? OR (run_id = ? AND asked = ?)) AND house_id = ? AND ended_ms IS NULL';
const which = (of: ReportOf): (number | string | null)[] =>
  of.resultId === undefined ? [null, of.runId, of.asked] : [of.resultId, null, null];

/** The open link of a report. */
export async function openReportLink(sql: Sql, of: ReportOf): Promise<ReportLinkRow | undefined> {
  const [row] = await sql.rows<ReportLinkRow>(
    `SELECT ${COLUMNS} WHERE ${WHICH} ORDER BY made_ms DESC LIMIT 1`,
    [...which(of), sql.house],
  );
  return row;
}

export async function insertReportLink(sql: Sql, code: string, of: ReportOf, madeMs: number): Promise<void> {
  await sql.change(
    'INSERT INTO report_link (house_id, code, result_id, run_id, asked, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, code, ...which(of), sql.person, madeMs],
  );
}

export async function endReportLinks(sql: Sql, of: ReportOf, endedMs: number): Promise<void> {
  await sql.change(`UPDATE report_link SET ended_ms = ? WHERE ${WHICH}`, [endedMs, ...which(of), sql.house]);
}
