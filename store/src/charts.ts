import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import type { Sql } from './database.ts';

export type ChartPurpose = 'profile' | 'short-check' | 'ramps' | 'near-neutral' | 'evenness' | 'wedge';

export interface ChartRow {
  readonly id: number;
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  readonly title: string;
  readonly patches: number;
  readonly paper: PaperName;
  readonly seed: number;
  /** The kind of reader it is laid out for. */
  readonly reader: ReaderKind;
  /** How often each patch stands on it. */
  readonly copies: number;
  readonly madeMs: number;
}

const COLUMNS =
  'id, condition_id AS conditionId, purpose, title, patches, paper, seed, reader, copies, made_ms AS madeMs';

export function listCharts(sql: Sql, condition: number): Promise<ChartRow[]> {
  return sql.rows(`SELECT ${COLUMNS} FROM chart WHERE condition_id = ? ORDER BY id DESC LIMIT 200`, [
    condition,
  ]);
}

/** A chart with its reference file (CGATS text with layout). */
export async function findChart(
  sql: Sql,
  id: number,
): Promise<(ChartRow & { readonly reference: string }) | undefined> {
  const [row] = await sql.rows<ChartRow & { reference: string }>(
    `SELECT ${COLUMNS}, reference FROM chart WHERE id = ?`,
    [id],
  );
  return row;
}

export async function insertChart(
  sql: Sql,
  chart: Omit<ChartRow, 'id'> & { readonly reference: string },
  author: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO chart (condition_id, purpose, title, patches, paper, seed, reader, copies, reference, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      chart.conditionId,
      chart.purpose,
      chart.title,
      chart.patches,
      chart.paper,
      chart.seed,
      chart.reader,
      chart.copies,
      chart.reference,
      author,
      chart.madeMs,
    ],
  );
  return id;
}
