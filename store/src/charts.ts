import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import type { Sql } from './database.ts';
import { LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';

export type ChartPurpose =
  'profile' | 'short-check' | 'ramps' | 'near-neutral' | 'evenness' | 'wedge' | 'job';
/** Which of a purpose's charts it is: the wedges, and what a profiling chart adds to. */
export type ChartKind = 'proof' | 'near-neutral' | 'watch' | 'own' | 'first' | 'second' | 'refinement';

export interface ChartRow {
  readonly id: number;
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  readonly kind: ChartKind | null;
  /** Name of the process whose values it asks for, which need not be the device's own. */
  readonly processName: string;
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
  'id, condition_id AS conditionId, purpose, kind, process AS processName, title, patches, paper, seed, reader, copies, made_ms AS madeMs';

/** Charts of a condition, the newest first. */
export async function listCharts(
  sql: Sql,
  condition: number,
  { after = LAST_ID, limit }: PageAsked,
): Promise<Page<ChartRow>> {
  const rows = await sql.rows<ChartRow>(
    `SELECT ${COLUMNS} FROM chart WHERE condition_id = ? AND house_id = ? AND id < ? ORDER BY id DESC LIMIT ?`,
    [condition, sql.house, after, String(limit + 1)],
  );
  return pageOf(rows, limit, ({ id }) => id);
}

/** A chart with its reference file (CGATS text with layout). */
export async function findChart(
  sql: Sql,
  id: number,
): Promise<(ChartRow & { readonly reference: string }) | undefined> {
  const [row] = await sql.rows<ChartRow & { reference: string }>(
    `SELECT ${COLUMNS}, reference FROM chart WHERE id = ? AND house_id = ?`,
    [id, sql.house],
  );
  return row;
}

export async function insertChart(
  sql: Sql,
  chart: Omit<ChartRow, 'id'> & { readonly reference: string },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO chart (house_id, condition_id, purpose, kind, process, title, patches, paper, seed, reader, copies, reference, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      chart.conditionId,
      chart.purpose,
      chart.kind,
      chart.processName,
      chart.title,
      chart.patches,
      chart.paper,
      chart.seed,
      chart.reader,
      chart.copies,
      chart.reference,
      sql.person,
      chart.madeMs,
    ],
  );
  return id;
}
