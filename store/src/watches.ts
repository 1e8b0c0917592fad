import type { Sql } from './database.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';

/** One check of a watch. */
export interface WatchCheckRow {
  readonly id: number;
  readonly readingId: number;
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

const CHECK = `c.id, c.reading_id AS readingId, c.made_ms AS madeMs, c.mean_delta_e AS meanDeltaE, c.largest_delta_e AS largestDeltaE,
  c.verdict, c.moved, c.cause, c.figures`;

/** Checks of a watch whose readings stand, the latest first; the checks lead, so that their index serves the order. */
export const WATCH_CHECKS_SQL = `SELECT STRAIGHT_JOIN ${CHECK} FROM watch_check c JOIN reading r ON r.id = c.reading_id
  WHERE c.watch_id = ? AND r.withdrawn_ms IS NULL ORDER BY c.made_ms DESC, c.id DESC LIMIT ?`;

export async function listWatchChecks(sql: Sql, watch: number, most: number): Promise<WatchCheckRow[]> {
  const rows = await sql.rows<Omit<WatchCheckRow, 'figures' | 'moved'> & { figures: Buffer; moved: number }>(
    WATCH_CHECKS_SQL,
    [watch, most],
  );
  return rows
    .map((row) => ({ ...row, moved: row.moved === 1, figures: decodeValues(row.figures) }))
    .reverse();
}

export interface NewWatchCheck extends Omit<WatchCheckRow, 'id'> {
  readonly conditionId: number;
  readonly watchId: number;
}

/** Stores a check; a strip that is read again replaces it. */
export async function upsertWatchCheck(sql: Sql, row: NewWatchCheck): Promise<void> {
  await sql.change(
    `INSERT INTO watch_check (condition_id, watch_id, reading_id, made_ms, mean_delta_e, largest_delta_e, verdict, moved, cause, figures)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE mean_delta_e = VALUES(mean_delta_e), largest_delta_e = VALUES(largest_delta_e),
       verdict = VALUES(verdict), moved = VALUES(moved), cause = VALUES(cause), figures = VALUES(figures)`,
    [
      row.conditionId,
      row.watchId,
      row.readingId,
      row.madeMs,
      row.meanDeltaE,
      row.largestDeltaE,
      row.verdict,
      row.moved,
      row.cause,
      encodeValues(row.figures),
    ],
  );
}

const STATE = `condition_id AS conditionId, watch_id AS watchId, due_ms AS dueMs, expires_ms AS expiresMs, last_ms AS lastMs, verdict, moved, cause, spark FROM watch_state`;
/** Of all conditions, as the floor wants them. */
export const WATCH_STATES_SQL = `SELECT ${STATE}`;

type StoredState = Omit<WatchStateRow, 'moved' | 'spark'> & { moved: number; spark: string };

export async function listWatchStates(sql: Sql): Promise<WatchStateRow[]> {
  return (await sql.rows<StoredState>(WATCH_STATES_SQL)).map(typed);
}

export async function findWatchState(sql: Sql, condition: number): Promise<WatchStateRow | undefined> {
  const [row] = await sql.rows<StoredState>(`SELECT ${STATE} WHERE condition_id = ?`, [condition]);
  return row === undefined ? undefined : typed(row);
}

export async function upsertWatchState(sql: Sql, row: WatchStateRow): Promise<void> {
  await sql.change(
    `INSERT INTO watch_state (condition_id, watch_id, due_ms, expires_ms, last_ms, verdict, moved, cause, spark)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE watch_id = VALUES(watch_id), due_ms = VALUES(due_ms), expires_ms = VALUES(expires_ms), last_ms = VALUES(last_ms),
       verdict = VALUES(verdict), moved = VALUES(moved), cause = VALUES(cause), spark = VALUES(spark)`,
    [
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

function typed(row: StoredState): WatchStateRow {
  return { ...row, moved: row.moved === 1, spark: JSON.parse(row.spark) as number[] };
}
