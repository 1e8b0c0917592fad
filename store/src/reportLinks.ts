import type { Sql } from './database.ts';

/** A public link to the report of a result. */
export interface ReportLinkRow {
  readonly code: string;
  readonly resultId: number;
  readonly madeMs: number;
  readonly endedMs: number | null;
}

const COLUMNS = 'code, result_id AS resultId, made_ms AS madeMs, ended_ms AS endedMs FROM report_link';

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

/** The link of a result that is open. */
export async function openReportLink(sql: Sql, result: number): Promise<ReportLinkRow | undefined> {
  const [row] = await sql.rows<ReportLinkRow>(
    `SELECT ${COLUMNS} WHERE result_id = ? AND house_id = ? AND ended_ms IS NULL ORDER BY made_ms DESC LIMIT 1`,
    [result, sql.house],
  );
  return row;
}

export async function insertReportLink(
  sql: Sql,
  code: string,
  result: number,
  madeMs: number,
): Promise<void> {
  await sql.change(
    'INSERT INTO report_link (house_id, code, result_id, author_id, made_ms) VALUES (?, ?, ?, ?, ?)',
    [sql.house, code, result, sql.person, madeMs],
  );
}

export async function endReportLinks(sql: Sql, result: number, endedMs: number): Promise<void> {
  await sql.change(
    'UPDATE report_link SET ended_ms = ? WHERE result_id = ? AND house_id = ? AND ended_ms IS NULL',
    [endedMs, result, sql.house],
  );
}
