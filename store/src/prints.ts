import type { Sql } from './database.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';

export interface PrintRow {
  readonly id: number;
  readonly conditionId: number;
  readonly chartId: number;
  /** `WRN-0012`; its sheets add the page. */
  readonly code: string;
  readonly profileResultId: number | null;
  /** Curves that the front end was asked to apply, and corrections of the zones; null for none. */
  readonly curvesResultId: number | null;
  readonly evennessResultId: number | null;
  /** JSON of what a control wedge is to be judged by, chosen before it is read; null for other charts. */
  readonly judgedBy: string | null;
  readonly ticks: readonly string[];
  readonly printedMs: number;
  readonly restUntilMs: number;
  /** Row-major patch × channel as sent to the device. */
  readonly deviceValues: Float64Array;
}

export interface SheetRow {
  readonly id: number;
  readonly printId: number;
  readonly conditionId: number;
  readonly chartId: number;
  readonly page: number;
  readonly code: string;
  readonly strips: number;
  readonly stripsRead: number;
  readonly marked: readonly number[];
  /** Screen colours of some of the sheet's own patches. */
  readonly thumbnail: readonly string[];
  readonly onRack: boolean;
  readonly printedMs: number;
  readonly restUntilMs: number;
  readonly title: string;
  readonly purpose: string;
}

const SHEET = `s.id, s.print_id AS printId, p.condition_id AS conditionId, p.chart_id AS chartId, s.page, s.code, s.strips,
  s.strips_read AS stripsRead, s.marked, s.thumbnail, s.on_rack AS onRack, p.printed_ms AS printedMs, p.rest_until_ms AS restUntilMs,
  c.title, c.purpose
  FROM sheet s JOIN print p ON p.id = s.print_id JOIN chart c ON c.id = p.chart_id`;

interface RawSheet extends Omit<SheetRow, 'marked' | 'onRack' | 'thumbnail'> {
  readonly thumbnail: string;
  readonly marked: string;
  readonly onRack: number;
}

function sheetOf(row: RawSheet): SheetRow {
  return {
    ...row,
    marked: JSON.parse(row.marked) as number[],
    thumbnail: JSON.parse(row.thumbnail) as string[],
    onRack: row.onRack === 1,
  };
}

export async function insertPrint(sql: Sql, print: Omit<PrintRow, 'id'>, author: number): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO print (condition_id, chart_id, code, profile_result_id, curves_result_id, evenness_result_id, judged_by, device_values, ticks, printed_ms, rest_until_ms, author_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      print.conditionId,
      print.chartId,
      print.code,
      print.profileResultId,
      print.curvesResultId,
      print.evennessResultId,
      print.judgedBy,
      encodeValues(print.deviceValues),
      JSON.stringify(print.ticks),
      print.printedMs,
      print.restUntilMs,
      author,
    ],
  );
  return id;
}

export async function insertSheet(
  sql: Sql,
  sheet: {
    readonly printId: number;
    readonly page: number;
    readonly code: string;
    readonly strips: number;
    readonly printState: string;
    readonly thumbnail: readonly string[];
  },
): Promise<void> {
  await sql.change(
    "INSERT INTO sheet (print_id, page, code, strips, marked, print_state, thumbnail) VALUES (?, ?, ?, ?, '[]', ?, ?)",
    [sheet.printId, sheet.page, sheet.code, sheet.strips, sheet.printState, JSON.stringify(sheet.thumbnail)],
  );
}

export async function findPrint(sql: Sql, id: number): Promise<PrintRow | undefined> {
  const [row] = await sql.rows<
    Omit<PrintRow, 'ticks' | 'deviceValues'> & { ticks: string; deviceValues: Buffer }
  >(
    `SELECT id, condition_id AS conditionId, chart_id AS chartId, code, profile_result_id AS profileResultId,
      curves_result_id AS curvesResultId, evenness_result_id AS evennessResultId, judged_by AS judgedBy, ticks,
      printed_ms AS printedMs, rest_until_ms AS restUntilMs, device_values AS deviceValues FROM print WHERE id = ?`,
    [id],
  );
  return row === undefined
    ? undefined
    : { ...row, ticks: JSON.parse(row.ticks) as string[], deviceValues: decodeValues(row.deviceValues) };
}

export async function findSheet(
  sql: Sql,
  code: string,
): Promise<(SheetRow & { readonly printState: string }) | undefined> {
  const [row] = await sql.rows<RawSheet & { printState: string }>(
    `SELECT s.print_state AS printState, ${SHEET} WHERE s.code = ?`,
    [code],
  );
  return row === undefined ? undefined : { ...sheetOf(row), printState: row.printState };
}

/** Sheets that wait to be read, over all conditions. */
export async function listRack(sql: Sql): Promise<SheetRow[]> {
  return (await sql.rows<RawSheet>(`SELECT ${SHEET} WHERE s.on_rack = 1 ORDER BY s.id LIMIT 200`)).map(
    sheetOf,
  );
}

export async function listSheets(sql: Sql, condition: number): Promise<SheetRow[]> {
  return (
    await sql.rows<RawSheet>(
      `SELECT ${SHEET} WHERE p.condition_id = ? ORDER BY p.id DESC, s.page LIMIT 400`,
      [condition],
    )
  ).map(sheetOf);
}

export async function setSheetProgress(
  sql: Sql,
  sheet: number,
  stripsRead: number,
  onRack: boolean,
): Promise<void> {
  await sql.change('UPDATE sheet SET strips_read = ?, on_rack = ? WHERE id = ?', [stripsRead, onRack, sheet]);
}

export async function setMarked(sql: Sql, sheet: number, marked: readonly number[]): Promise<void> {
  await sql.change('UPDATE sheet SET marked = ? WHERE id = ?', [JSON.stringify(marked), sheet]);
}

export async function setOnRack(sql: Sql, code: string, onRack: boolean): Promise<boolean> {
  return (await sql.change('UPDATE sheet SET on_rack = ? WHERE code = ?', [onRack, code])).affected > 0;
}

/** Locks a print, so that passes and imports of its sheets follow each other. */
export async function lockPrint(sql: Sql, id: number): Promise<void> {
  await sql.rows('SELECT id FROM print WHERE id = ? FOR UPDATE', [id]);
}
