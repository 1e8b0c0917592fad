import type { ChartKind, ChartPurpose } from './charts.ts';
import type { Sql } from './database.ts';
import { foundCodes } from './foundCodes.ts';
import { holding, LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';
import { lockRow } from './lockRow.ts';

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
  readonly purpose: ChartPurpose;
  /** Name of the process whose values its chart asks for. */
  readonly processName: string;
  readonly kind: ChartKind | null;
}

const SHEET = `s.id, s.print_id AS printId, p.condition_id AS conditionId, p.chart_id AS chartId, s.page, s.code, s.strips,
  s.strips_read AS stripsRead, s.marked, s.thumbnail, s.on_rack AS onRack, p.printed_ms AS printedMs, p.rest_until_ms AS restUntilMs,
  c.title, c.purpose, c.process AS processName, c.kind
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

export async function insertPrint(sql: Sql, print: Omit<PrintRow, 'id'>): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO print (house_id, condition_id, chart_id, code, profile_result_id, curves_result_id, evenness_result_id, judged_by, device_values, ticks, printed_ms, rest_until_ms, author_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
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
      sql.person,
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
    "INSERT INTO sheet (house_id, print_id, page, code, strips, marked, print_state, thumbnail) VALUES (?, ?, ?, ?, ?, '[]', ?, ?)",
    [
      sql.house,
      sheet.printId,
      sheet.page,
      sheet.code,
      sheet.strips,
      sheet.printState,
      JSON.stringify(sheet.thumbnail),
    ],
  );
}

export async function findPrint(sql: Sql, id: number): Promise<PrintRow | undefined> {
  const [row] = await sql.rows<
    Omit<PrintRow, 'ticks' | 'deviceValues'> & { ticks: string; deviceValues: Buffer }
  >(
    `SELECT id, condition_id AS conditionId, chart_id AS chartId, code, profile_result_id AS profileResultId,
      curves_result_id AS curvesResultId, evenness_result_id AS evennessResultId, judged_by AS judgedBy, ticks,
      printed_ms AS printedMs, rest_until_ms AS restUntilMs, device_values AS deviceValues FROM print WHERE id = ? AND house_id = ?`,
    [id, sql.house],
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
    `SELECT s.print_state AS printState, ${SHEET} WHERE s.house_id = ? AND s.code = ?`,
    [sql.house, code],
  );
  return row === undefined ? undefined : { ...sheetOf(row), printState: row.printState };
}

/** Sheets that wait to be read, over all conditions or of one, the oldest first. */
export async function listRack(
  sql: Sql,
  { after = 0, limit }: PageAsked,
  condition?: number,
): Promise<Page<SheetRow>> {
  const rows = await sql.rows<RawSheet>(
    `SELECT ${SHEET} WHERE s.house_id = ? AND s.on_rack = 1 AND s.id > ? ${condition === undefined ? '' : 'AND p.condition_id = ?'} ORDER BY s.id LIMIT ?`,
    [sql.house, after, ...(condition === undefined ? [] : [condition]), String(limit + 1)],
  );
  return pageOf(rows.map(sheetOf), limit, ({ id }) => id);
}

/** How many sheets wait to be read over all conditions. */
export async function countRack(sql: Sql): Promise<number> {
  const [row] = await sql.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM sheet WHERE house_id = ? AND on_rack = 1',
    [sql.house],
  );
  return Number(row?.n ?? 0);
}

/** A sheet on the rack by the least that is needed to say what it waits for. */
export interface RackPlace {
  readonly conditionId: number;
  readonly code: string;
  readonly strips: number;
  readonly stripsRead: number;
  readonly restUntilMs: number;
}

/** All sheets that wait to be read. */
export function listRackPlaces(sql: Sql): Promise<RackPlace[]> {
  return sql.rows(
    `SELECT p.condition_id AS conditionId, s.code, s.strips, s.strips_read AS stripsRead, p.rest_until_ms AS restUntilMs
     FROM sheet s JOIN print p ON p.id = s.print_id WHERE s.house_id = ? AND s.on_rack = 1 ORDER BY s.id`,
    [sql.house],
  );
}

/** Codes of the sheets of a print that wait to be read. */
export async function listWaitingSheets(sql: Sql, print: number): Promise<string[]> {
  const rows = await sql.rows<{ code: string }>(
    'SELECT code FROM sheet WHERE print_id = ? AND house_id = ? AND on_rack = 1 ORDER BY page',
    [print, sql.house],
  );
  return rows.map(({ code }) => code);
}

/** Sheets of a condition, the latest first. */
export async function listSheets(
  sql: Sql,
  condition: number,
  { after = LAST_ID, limit, find = '' }: PageAsked,
): Promise<Page<SheetRow>> {
  const rows = await sql.rows<RawSheet>(
    `SELECT ${SHEET} WHERE p.condition_id = ? AND s.house_id = ? AND s.id < ? AND CONCAT(s.code, ' ', c.title) LIKE ? ORDER BY s.id DESC LIMIT ?`,
    [condition, sql.house, after, holding(find), String(limit + 1)],
  );
  return pageOf(rows.map(sheetOf), limit, ({ id }) => id);
}

export async function countSheets(sql: Sql, condition: number): Promise<number> {
  const [row] = await sql.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM sheet s JOIN print p ON p.id = s.print_id WHERE p.condition_id = ? AND s.house_id = ?',
    [condition, sql.house],
  );
  return Number(row?.n ?? 0);
}

/** Keeps how many strips of a page were read; a page that is complete leaves the rack, and none comes back to it. */
export async function setPageProgress(
  sql: Sql,
  print: number,
  page: number,
  stripsRead: number,
  complete: boolean,
): Promise<void> {
  await sql.change(
    'UPDATE sheet SET strips_read = ?, on_rack = IF(?, 0, on_rack) WHERE print_id = ? AND page = ? AND house_id = ?',
    [stripsRead, complete, print, page, sql.house],
  );
}

/** Adds a mark to a sheet or takes it away, after whoever changes its marks at the same time. @returns all marks. */
export async function changeMark(
  sql: Sql,
  code: string,
  strip: number,
  marked: boolean,
): Promise<readonly number[] | undefined> {
  const [row] = await sql.rows<{ id: number; marked: string }>(
    'SELECT id, marked FROM sheet WHERE house_id = ? AND code = ? FOR UPDATE',
    [sql.house, code],
  );
  if (row === undefined) return undefined;
  const others = (JSON.parse(row.marked) as number[]).filter((number) => number !== strip);
  const next = marked ? [...others, strip].sort((a, b) => a - b) : others;
  await sql.change('UPDATE sheet SET marked = ? WHERE id = ?', [JSON.stringify(next), row.id]);
  return next;
}

export async function setOnRack(sql: Sql, code: string, onRack: boolean): Promise<boolean> {
  const found = await sql.rows('SELECT id FROM sheet WHERE house_id = ? AND code = ? FOR UPDATE', [
    sql.house,
    code,
  ]);
  await sql.change('UPDATE sheet SET on_rack = ? WHERE house_id = ? AND code = ?', [onRack, sql.house, code]);
  return found.length > 0;
}

/** Locks a print, so that passes and imports of its sheets follow each other. */
export async function lockPrint(sql: Sql, id: number): Promise<void> {
  await lockRow(sql, 'print', id);
}

/** Sheets whose codes a text finds (`foundCodes`), the latest first. */
export function searchSheets(
  sql: Sql,
  text: string,
  limit: number,
): Promise<{ readonly code: string; readonly title: string }[]> {
  const codes = foundCodes(sql, 'sheet', text);
  return sql.rows(
    `SELECT s.code, c.title FROM (${codes.sql}) found JOIN sheet s ON s.id = found.id
     JOIN print p ON p.id = s.print_id JOIN chart c ON c.id = p.chart_id ORDER BY s.id DESC LIMIT ?`,
    [...codes.values, String(limit)],
  );
}
