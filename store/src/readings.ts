import type { ChartKind, ChartPurpose } from './charts.ts';
import type { Sql } from './database.ts';
import { foundCodes } from './foundCodes.ts';
import { holding, LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';

export type ReadingSource = 'desk' | 'file';
export type ReadingMode = 'M0' | 'M1' | 'M2' | 'M3';

export interface ReadingRow {
  readonly id: number;
  readonly printId: number;
  readonly instrumentId: number | null;
  readonly instrument: string | null;
  readonly source: ReadingSource;
  readonly mode: ReadingMode;
  /** JSON of what a file told of how it was measured; null where it was read at the desk. */
  readonly told: string | null;
  readonly startedMs: number;
  readonly finishedMs: number | null;
  readonly early: boolean;
  readonly withdrawnMs: number | null;
  /** JSON of the faults, once the reading is complete. */
  readonly faults: string | null;
}

const FIELDS = `r.id, r.print_id AS printId, r.instrument_id AS instrumentId, i.name AS instrument, r.source, r.mode, r.told,
  r.started_ms AS startedMs, r.finished_ms AS finishedMs, r.early, r.withdrawn_ms AS withdrawnMs, r.faults`;
const COLUMNS = `${FIELDS} FROM reading r LEFT JOIN instrument i ON i.id = r.instrument_id`;

type RawReading = Omit<ReadingRow, 'early'> & { readonly early: number };
const readingOf = (row: RawReading): ReadingRow => ({ ...row, early: row.early === 1 });

export async function findReading(sql: Sql, id: number): Promise<ReadingRow | undefined> {
  const [row] = await sql.rows<RawReading>(`SELECT ${COLUMNS} WHERE r.id = ? AND r.house_id = ?`, [
    id,
    sql.house,
  ]);
  return row === undefined ? undefined : readingOf(row);
}

/** The reading of a print that was added to last and was not withdrawn. */
export async function latestReading(sql: Sql, print: number): Promise<ReadingRow | undefined> {
  const [row] = await sql.rows<RawReading>(
    `SELECT ${COLUMNS} WHERE r.print_id = ? AND r.house_id = ? AND r.withdrawn_ms IS NULL
     ORDER BY (SELECT MAX(s.id) FROM strip_reading s WHERE s.reading_id = r.id) DESC, r.id DESC LIMIT 1`,
    [print, sql.house],
  );
  return row === undefined ? undefined : readingOf(row);
}

/** Modes of the complete readings of a print that stand, the first that was begun first. */
export function listModesRead(
  sql: Sql,
  print: number,
): Promise<{ readonly id: number; readonly mode: ReadingRow['mode'] }[]> {
  return sql.rows(
    'SELECT id, mode FROM reading WHERE print_id = ? AND house_id = ? AND finished_ms IS NOT NULL AND withdrawn_ms IS NULL ORDER BY id',
    [print, sql.house],
  );
}

/**
 * The reading of a print that strips of a mode, source and instrument go into, measured under the same conditions: the
 * newest that was not withdrawn.
 */
export async function openReading(
  sql: Sql,
  print: number,
  { mode, source, told, instrumentId }: Pick<ReadingRow, 'mode' | 'source' | 'told' | 'instrumentId'>,
): Promise<ReadingRow | undefined> {
  const [row] = await sql.rows<RawReading>(
    `SELECT ${COLUMNS} WHERE r.print_id = ? AND r.house_id = ? AND r.mode = ? AND r.source = ? AND r.told <=> ?
     AND r.instrument_id <=> ? AND r.withdrawn_ms IS NULL ORDER BY r.id DESC LIMIT 1`,
    [print, sql.house, mode, source, told, instrumentId],
  );
  return row === undefined ? undefined : readingOf(row);
}

export interface ReadingOfCondition extends ReadingRow {
  readonly code: string;
  /** JSON of what its print is judged by; null where it was made for no aims. */
  readonly judgedBy: string | null;
  readonly title: string;
  readonly purpose: ChartPurpose;
  readonly kind: ChartKind | null;
  readonly patches: number;
  readonly curvesResultId: number | null;
}

/** Prints of the condition lead: however many readings a house has, only its own are looked at. */
export const OF_CONDITION = `STRAIGHT_JOIN p.code, p.judged_by AS judgedBy, p.curves_result_id AS curvesResultId, c.title, c.purpose, c.kind, c.patches, ${FIELDS}
  FROM print p JOIN reading r ON r.print_id = p.id JOIN chart c ON c.id = p.chart_id LEFT JOIN instrument i ON i.id = r.instrument_id
  WHERE p.condition_id = ? AND r.house_id = ?`;

type RawReadingOfCondition = RawReading & Omit<ReadingOfCondition, 'early'>;
const ofCondition = (row: RawReadingOfCondition): ReadingOfCondition => ({ ...row, early: row.early === 1 });

/** Readings of a condition, the newest first. */
export async function listReadings(
  sql: Sql,
  condition: number,
  { after = LAST_ID, limit, find = '' }: PageAsked,
): Promise<Page<ReadingOfCondition>> {
  const rows = await sql.rows<RawReadingOfCondition>(
    `SELECT ${OF_CONDITION} AND r.id < ? AND CONCAT(p.code, ' ', c.title, ' ', r.mode) LIKE ? ORDER BY r.id DESC LIMIT ?`,
    [condition, sql.house, after, holding(find), String(limit + 1)],
  );
  return pageOf(rows.map(ofCondition), limit, ({ id }) => id);
}

/** What a result can be made from: readings that are complete and stand, of some kinds of charts. */
export interface ReadingsWanted {
  readonly purposes?: readonly ChartPurpose[];
  readonly kind?: ChartKind;
  /** Name of the process whose values the chart asks for. */
  readonly processName?: string;
  readonly limit: number;
}

/** Complete readings of a condition that stand, the newest first. */
export async function listCompleteReadings(
  sql: Sql,
  condition: number,
  { purposes, kind, processName, limit }: ReadingsWanted,
): Promise<ReadingOfCondition[]> {
  const rows = await sql.rows<RawReadingOfCondition>(
    `SELECT ${OF_CONDITION} AND r.finished_ms IS NOT NULL AND r.withdrawn_ms IS NULL
     ${purposes === undefined ? '' : `AND c.purpose IN (${purposes.map(() => '?').join(', ')})`}
     ${kind === undefined ? '' : 'AND c.kind = ?'} ${processName === undefined ? '' : 'AND c.process = ?'} ORDER BY r.id DESC LIMIT ?`,
    [
      condition,
      sql.house,
      ...(purposes ?? []),
      ...(kind === undefined ? [] : [kind]),
      ...(processName === undefined ? [] : [processName]),
      String(limit),
    ],
  );
  return rows.map(ofCondition);
}

/** A complete reading of any condition. */
export interface ReadingOfHouse {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly condition: string;
  readonly finishedMs: number;
}

/**
 * Complete readings over all conditions whose charts ask for values of a process, the newest first; of prints that no
 * profile converted where that is asked: what is bare on the chart is bare on paper.
 */
export function listReadingsOfProcess(
  sql: Sql,
  processName: string,
  limit: number,
  { unconverted = false, purpose }: { unconverted?: boolean; purpose?: ChartPurpose } = {},
): Promise<ReadingOfHouse[]> {
  return sql.rows(
    `SELECT r.id, p.code, c.title, CONCAT(d.name, ' / ', s.name) AS \`condition\`, r.finished_ms AS finishedMs
     FROM reading r JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id
     JOIN printing_condition pc ON pc.id = p.condition_id JOIN device d ON d.id = pc.device_id JOIN stock s ON s.id = pc.stock_id
     WHERE r.house_id = ? AND r.finished_ms IS NOT NULL AND r.withdrawn_ms IS NULL AND c.process = ?
     ${purpose === undefined ? '' : 'AND c.purpose = ?'}
     ${unconverted ? 'AND p.profile_result_id IS NULL' : ''} ORDER BY r.id DESC LIMIT ?`,
    [sql.house, processName, ...(purpose === undefined ? [] : [purpose]), String(limit)],
  );
}

/** Where the newest reading of a condition stands, of charts that results are built from. */
export interface ReadingState {
  readonly id: number;
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  readonly finishedMs: number | null;
  readonly faults: string | null;
}

/** The newest reading of some purposes that stands, of each condition or of some. */
export function listNewestReadings(sql: Sql, purposes: readonly ChartPurpose[]): Promise<ReadingState[]> {
  return sql.rows(
    `SELECT r.id, r.condition_id AS conditionId, r.purpose, r.finished_ms AS finishedMs, r.faults
     FROM reading r
     JOIN (SELECT MAX(own.id) AS id FROM (
             SELECT condition_id, purpose, MAX(id) AS id FROM reading
             WHERE house_id = ? AND withdrawn_ms IS NULL GROUP BY house_id, condition_id, purpose) own
           WHERE own.purpose IN (${purposes.map(() => '?').join(', ')}) GROUP BY own.condition_id) newest ON newest.id = r.id`,
    [sql.house, ...purposes],
  );
}

/** Readings whose print's code is found by a text (`foundCodes`), the latest first. */
export function searchReadings(
  sql: Sql,
  text: string,
  limit: number,
): Promise<{ readonly id: number; readonly code: string; readonly title: string }[]> {
  const codes = foundCodes(sql, 'print', text);
  return sql.rows(
    `SELECT r.id, p.code, c.title FROM (${codes.sql}) found JOIN print p ON p.id = found.id
     JOIN reading r ON r.print_id = p.id JOIN chart c ON c.id = p.chart_id ORDER BY r.id DESC LIMIT ?`,
    [...codes.values, String(limit)],
  );
}

export async function insertReading(
  sql: Sql,
  reading: {
    readonly printId: number;
    readonly instrumentId: number | null;
    readonly source: ReadingSource;
    readonly mode: ReadingMode;
    readonly told: string | null;
    readonly startedMs: number;
    readonly early: boolean;
  },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO reading (house_id, print_id, instrument_id, source, mode, told, started_ms, early, author_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      reading.printId,
      reading.instrumentId,
      reading.source,
      reading.mode,
      reading.told,
      reading.startedMs,
      reading.early,
      sql.person,
    ],
  );
  return id;
}

/** Whether strips that stand in a reading were read before their print had rested. */
export async function setEarly(sql: Sql, reading: number, early: boolean): Promise<void> {
  await sql.change('UPDATE reading SET early = ? WHERE id = ? AND house_id = ?', [early, reading, sql.house]);
}

export async function finishReading(
  sql: Sql,
  reading: number,
  finishedMs: number | null,
  faults: string | null,
): Promise<void> {
  await sql.change('UPDATE reading SET finished_ms = ?, faults = ? WHERE id = ? AND house_id = ?', [
    finishedMs,
    faults,
    reading,
    sql.house,
  ]);
}

/** Withdraws a reading in the name of whoever acts, or takes it back. */
export async function setWithdrawn(sql: Sql, reading: number, withdrawnMs: number | null): Promise<void> {
  await sql.change('UPDATE reading SET withdrawn_ms = ?, withdrawn_by = ? WHERE id = ? AND house_id = ?', [
    withdrawnMs,
    withdrawnMs === null ? null : sql.person,
    reading,
    sql.house,
  ]);
}

/** A complete reading of a sheet that no profile or curves changed. */
export interface PlainReading {
  readonly id: number;
  readonly conditionId: number;
  readonly mode: string;
}

/** The newest of them of each condition that is not archived and of each mode; with faults, withdrawn ones and wedges left out. */
export function listPlainReadings(sql: Sql, limit: number): Promise<PlainReading[]> {
  return sql.rows(
    `SELECT MAX(r.id) AS id, p.condition_id AS conditionId, r.mode FROM reading r
     JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id
     JOIN printing_condition pc ON pc.id = p.condition_id
     WHERE r.house_id = ? AND r.finished_ms IS NOT NULL AND r.withdrawn_ms IS NULL AND (r.faults IS NULL OR r.faults = '[]')
       AND p.profile_result_id IS NULL AND p.curves_result_id IS NULL AND c.purpose <> 'wedge' AND pc.archived_ms IS NULL
     GROUP BY p.condition_id, r.mode ORDER BY id DESC LIMIT ?`,
    [sql.house, String(limit)],
  );
}

/** When a reading that a result was made from was withdrawn; null where all of them stand. */
export async function withdrawnOf(sql: Sql, result: number): Promise<number | null> {
  const [row] = await sql.rows<{ atMs: number | null }>(
    'SELECT MAX(x.withdrawn_ms) AS atMs FROM result_source s JOIN reading x ON x.id = s.reading_id WHERE s.result_id = ? AND x.house_id = ?',
    [result, sql.house],
  );
  return row?.atMs == null ? null : Number(row.atMs);
}
