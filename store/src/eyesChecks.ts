import type { Sql } from './database.ts';

/** A look at a page of colours beside their references. */
export interface EyesCheckRow {
  readonly id: number;
  readonly conditionId: number;
  readonly resultId: number;
  readonly version: number;
  readonly listName: string;
  readonly light: string;
  /** JSON. */
  readonly detail: string;
  readonly author: string;
  readonly madeMs: number;
}

/** The newest looks of a condition. */
export function listEyesChecks(sql: Sql, conditionId: number, limit: number): Promise<EyesCheckRow[]> {
  return sql.rows(
    `SELECT e.id, e.condition_id AS conditionId, e.result_id AS resultId, r.version, e.list_name AS listName, e.light, e.detail, p.name AS author, e.made_ms AS madeMs
     FROM eyes_check e JOIN person p ON p.id = e.author_id JOIN result r ON r.id = e.result_id
     WHERE e.house_id = ? AND e.condition_id = ? ORDER BY e.id DESC LIMIT ?`,
    [sql.house, conditionId, String(limit)],
  );
}

export async function insertEyesCheck(
  sql: Sql,
  row: Pick<EyesCheckRow, 'conditionId' | 'resultId' | 'listName' | 'light' | 'madeMs'> & {
    readonly listId: number | null;
    readonly detail: unknown;
  },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO eyes_check (house_id, condition_id, result_id, list_id, list_name, light, detail, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      ...[sql.house, row.conditionId, row.resultId, row.listId, row.listName, row.light],
      ...[JSON.stringify(row.detail), sql.person, row.madeMs],
    ],
  );
  return id;
}
