import type { PatchSize } from '@melto/core/charts/chartForm';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import type { Sql } from './database.ts';
import { LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';

export type ChartPurpose =
  | 'profile'
  | 'short-check'
  | 'ramps'
  | 'near-neutral'
  | 'evenness'
  | 'wedge'
  | 'job';
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
  readonly patchSize: PatchSize;
  /** How often each patch stands on it. */
  readonly copies: number;
  readonly madeMs: number;
}

const COLUMNS =
  'id, condition_id AS conditionId, purpose, kind, process AS processName, title, patches, paper, seed, reader, patch_size AS patchSize, copies, made_ms AS madeMs';

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

/** What became of a chart's prints. */
export interface ChartPrints {
  readonly prints: number;
  /** Strips of all its sheets, and those that were read. */
  readonly strips: number;
  readonly stripsRead: number;
  /** The first of its sheets that waits on the rack. */
  readonly waiting: string | null;
}

/** Charts of a condition for a purpose, the newest first, with what became of their prints. */
export async function listChartPrints(
  sql: Sql,
  condition: number,
  purpose: ChartPurpose,
  limit: number,
): Promise<(ChartRow & ChartPrints)[]> {
  const rows = await sql.rows<ChartRow & ChartPrints>(
    `SELECT ${COLUMNS.split(', ')
      .map((column) => `c.${column}`)
      .join(', ')},
       COUNT(DISTINCT p.id) AS prints, COALESCE(SUM(s.strips), 0) AS strips, COALESCE(SUM(s.strips_read), 0) AS stripsRead,
       MIN(CASE WHEN s.on_rack = 1 AND s.strips_read < s.strips THEN s.code END) AS waiting
     FROM chart c LEFT JOIN print p ON p.chart_id = c.id LEFT JOIN sheet s ON s.print_id = p.id
     WHERE c.condition_id = ? AND c.house_id = ? AND c.purpose = ? GROUP BY c.id ORDER BY c.id DESC LIMIT ?`,
    [condition, sql.house, purpose, String(limit)],
  );
  return rows.map((row) => ({
    ...row,
    ...{ prints: Number(row.prints), strips: Number(row.strips), stripsRead: Number(row.stripsRead) },
  }));
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
    'INSERT INTO chart (house_id, condition_id, purpose, kind, process, title, patches, paper, seed, reader, patch_size, copies, reference, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
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
      chart.patchSize,
      chart.copies,
      chart.reference,
      sql.person,
      chart.madeMs,
    ],
  );
  return id;
}
