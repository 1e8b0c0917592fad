import type { Sql } from './database.ts';
import { decodeExact, decodeValues, encodeExact, encodeValues } from './valueBlock.ts';
import { lockRow } from './lockRow.ts';

/** One check of a watch. */
export interface WatchCheckRow {
  readonly id: number;
  /** What it was read from: a watch wedge, or the sheets of a run. */
  readonly readingId: number | null;
  readonly runId: number | null;
  readonly madeMs: number;
  /** ΔE00 to the zero reading. */
  readonly meanDeltaE: number;
  readonly largestDeltaE: number;
  readonly verdict: string;
  /** Something is over a control limit. */
  readonly moved: boolean;
  readonly cause: string | null;
  /** XYZ of the watch's patches, as `watchFigures` orders them. */
  readonly figures: Float64Array;
}

/** Where the watch of a condition stands, for lists. */
export interface WatchStateRow {
  readonly conditionId: number;
  readonly watchId: number;
  readonly dueMs: number;
  readonly expiresMs: number;
  readonly lastMs: number | null;
  readonly verdict: string;
  readonly moved: boolean;
  readonly cause: string | null;
  /** Mean ΔE00 of the latest checks, oldest first. */
  readonly spark: readonly number[];
}

const CHECK = `c.id, c.reading_id AS readingId, c.run_id AS runId, c.made_ms AS madeMs, c.mean_delta_e AS meanDeltaE, c.largest_delta_e AS largestDeltaE,
  c.verdict, c.moved, c.cause, c.figures`;

/** Checks of a watch whose readings stand; the checks lead, so that their index serves the order. */
const STANDING = `FROM watch_check c LEFT JOIN reading r ON r.id = c.reading_id
  WHERE c.watch_id = ? AND c.house_id = ? AND r.withdrawn_ms IS NULL`;
const CHECKS_OF = `SELECT STRAIGHT_JOIN ${CHECK} ${STANDING}`;
const LATEST_FIRST = 'ORDER BY c.made_ms DESC, c.id DESC LIMIT ?';

/** The latest before a time. */
export const WATCH_CHECKS_SQL = `${CHECKS_OF} AND c.made_ms < ? ${LATEST_FIRST}`;

/** The first of them; the same index, forwards. */
const FIRST_WATCH_CHECKS_SQL = `${CHECKS_OF} ORDER BY c.made_ms, c.id LIMIT ?`;

/** Those from a time on, after a check of that time. */
const WATCH_CHECKS_FROM_SQL = `${CHECKS_OF} AND c.made_ms >= ? AND (c.made_ms > ? OR c.id > ?) ORDER BY c.made_ms, c.id LIMIT ?`;

/** A time that no check is made at or after. */
const NEVER = Number.MAX_SAFE_INTEGER;

/** The first checks of a watch, oldest first. */
export async function listFirstWatchChecks(sql: Sql, watch: number, count: number): Promise<WatchCheckRow[]> {
  return (await sql.rows<StoredCheck>(FIRST_WATCH_CHECKS_SQL, [watch, sql.house, count])).map(typedCheck);
}

/** The latest checks of a watch that were made before a time, oldest first. */
export async function listWatchChecksBefore(
  sql: Sql,
  watch: number,
  beforeMs: number,
  count: number,
): Promise<WatchCheckRow[]> {
  const rows = await sql.rows<StoredCheck>(WATCH_CHECKS_SQL, [
    ...[watch, sql.house, Math.min(NEVER, beforeMs), count],
  ]);
  return rows.map(typedCheck).reverse();
}

/** Checks of a watch from a time on, or after one of them, oldest first. */
export async function listWatchChecksFrom(
  sql: Sql,
  watch: number,
  fromMs: number,
  after: Pick<WatchCheckRow, 'id' | 'madeMs'> | undefined,
  count: number,
): Promise<WatchCheckRow[]> {
  const from = Math.min(NEVER, after?.madeMs ?? fromMs);
  const rows = await sql.rows<StoredCheck>(WATCH_CHECKS_FROM_SQL, [
    ...[watch, sql.house, from, from, after?.id ?? 0, count],
  ]);
  return rows.map(typedCheck);
}

/** Where the charts of a watch stood after a check; null where that was not kept. */
export async function findChartState(sql: Sql, check: number): Promise<Float64Array | null> {
  const [row] = await sql.rows<{ state: Buffer | null }>(
    'SELECT chart_state AS state FROM watch_check WHERE id = ? AND house_id = ?',
    [check, sql.house],
  );
  return row?.state == null ? null : decodeExact(row.state);
}

export async function keepChartState(sql: Sql, check: number, state: Float64Array): Promise<void> {
  await sql.change('UPDATE watch_check SET chart_state = ? WHERE id = ? AND house_id = ?', [
    encodeExact(state),
    check,
    sql.house,
  ]);
}

/** Mean ΔE00 of the latest checks of a watch, oldest first. */
export async function listWatchMeans(sql: Sql, watch: number, count: number): Promise<number[]> {
  const rows = await sql.rows<{ mean: number }>(
    `SELECT STRAIGHT_JOIN c.mean_delta_e AS mean ${STANDING} ${LATEST_FIRST}`,
    [watch, sql.house, String(count)],
  );
  return rows.map(({ mean }) => mean).reverse();
}

/** Checks of a watch, oldest first: the latest `most`, and before them the `first` ones that its charts stand on. */
export async function listWatchChecks(
  sql: Sql,
  watch: number,
  first: number,
  most: number,
): Promise<WatchCheckRow[]> {
  const latest = await listWatchChecksBefore(sql, watch, NEVER, most);
  if (latest.length < most) return latest;
  const earliest = await listFirstWatchChecks(sql, watch, first);
  const known = new Set(latest.map(({ id }) => id));
  return [...earliest.filter(({ id }) => !known.has(id)), ...latest];
}

type StoredCheck = Omit<WatchCheckRow, 'figures' | 'moved'> & { figures: Buffer; moved: number };

function typedCheck(row: StoredCheck): WatchCheckRow {
  return { ...row, moved: row.moved === 1, figures: decodeValues(row.figures) };
}

/** A check before it is judged. */
export interface NewWatchCheck extends Pick<WatchCheckRow, 'readingId' | 'runId' | 'madeMs' | 'figures'> {
  readonly conditionId: number;
  readonly watchId: number;
}

/** Stores a check that is still to be judged; one that is there keeps its time. @returns the time it is kept under. */
export async function keepWatchCheck(sql: Sql, row: NewWatchCheck): Promise<number> {
  await sql.change(
    `INSERT INTO watch_check (house_id, condition_id, watch_id, reading_id, run_id, made_ms, mean_delta_e, largest_delta_e, verdict, moved, cause, figures)
     VALUES (?, ?, ?, ?, ?, ?, 0, 0, 'not-judged', 0, NULL, ?)
     ON DUPLICATE KEY UPDATE figures = VALUES(figures), verdict = VALUES(verdict)`,
    [
      ...[sql.house, row.conditionId, row.watchId, row.readingId, row.runId, row.madeMs],
      encodeValues(row.figures),
    ],
  );
  const [kept] = await sql.rows<{ readonly madeMs: number }>(
    'SELECT made_ms AS madeMs FROM watch_check WHERE watch_id = ? AND house_id = ? AND (reading_id = ? OR run_id = ?)',
    [row.watchId, sql.house, row.readingId, row.runId],
  );
  return kept.madeMs;
}

/** Whether a run is a check of a watch. */
export async function isRunCheck(sql: Sql, watch: number, run: number): Promise<boolean> {
  const rows = await sql.rows(
    'SELECT 1 FROM watch_check WHERE watch_id = ? AND run_id = ? AND house_id = ?',
    [...[watch, run], sql.house],
  );
  return rows.length > 0;
}

/** Watches that a reading is a check of. */
export function listChecksOfReading(
  sql: Sql,
  reading: number,
): Promise<{ readonly watchId: number; readonly madeMs: number }[]> {
  return sql.rows(
    'SELECT watch_id AS watchId, made_ms AS madeMs FROM watch_check WHERE reading_id = ? AND house_id = ? ORDER BY watch_id',
    [reading, sql.house],
  );
}

/** Keeps how a check was judged. */
export async function keepWatchJudgement(
  sql: Sql,
  row: Omit<WatchCheckRow, 'readingId' | 'runId' | 'madeMs' | 'figures'>,
): Promise<void> {
  await sql.change(
    'UPDATE watch_check SET mean_delta_e = ?, largest_delta_e = ?, verdict = ?, moved = ?, cause = ? WHERE id = ? AND house_id = ?',
    [row.meanDeltaE, row.largestDeltaE, row.verdict, row.moved, row.cause, row.id, sql.house],
  );
}

/** Waits for others that change the checks of a watch; to be asked before anything is read in the transaction. */
export async function lockWatch(sql: Sql, watch: number): Promise<void> {
  await lockRow(sql, 'result', watch);
}

const STATE = `condition_id AS conditionId, watch_id AS watchId, due_ms AS dueMs, expires_ms AS expiresMs, last_ms AS lastMs, verdict, moved, cause, spark FROM watch_state`;
/** Of all conditions, as the floor wants them. */
export const WATCH_STATES_SQL = `SELECT ${STATE} WHERE house_id = ?`;

type StoredState = Omit<WatchStateRow, 'moved' | 'spark'> & { moved: number; spark: string };

export async function listWatchStates(sql: Sql): Promise<WatchStateRow[]> {
  return (await sql.rows<StoredState>(WATCH_STATES_SQL, [sql.house])).map(typed);
}

export async function findWatchState(sql: Sql, condition: number): Promise<WatchStateRow | undefined> {
  const [row] = await sql.rows<StoredState>(`SELECT ${STATE} WHERE condition_id = ? AND house_id = ?`, [
    condition,
    sql.house,
  ]);
  return row === undefined ? undefined : typed(row);
}

export async function upsertWatchState(sql: Sql, row: WatchStateRow): Promise<void> {
  await sql.change(
    `INSERT INTO watch_state (house_id, condition_id, watch_id, due_ms, expires_ms, last_ms, verdict, moved, cause, spark)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE watch_id = VALUES(watch_id), due_ms = VALUES(due_ms), expires_ms = VALUES(expires_ms), last_ms = VALUES(last_ms),
       verdict = VALUES(verdict), moved = VALUES(moved), cause = VALUES(cause), spark = VALUES(spark)`,
    [
      sql.house,
      row.conditionId,
      row.watchId,
      row.dueMs,
      row.expiresMs,
      row.lastMs,
      row.verdict,
      row.moved,
      row.cause,
      JSON.stringify(row.spark),
    ],
  );
}

export async function removeWatchState(sql: Sql, condition: number): Promise<void> {
  await sql.change('DELETE FROM watch_state WHERE condition_id = ? AND house_id = ?', [condition, sql.house]);
}

function typed(row: StoredState): WatchStateRow {
  return { ...row, moved: row.moved === 1, spark: JSON.parse(row.spark) as number[] };
}
