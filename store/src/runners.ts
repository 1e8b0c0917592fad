import type { Sql } from './database.ts';

/** Tells that a runner is alive; forgets those that have been silent for long. */
export async function beatRunner(sql: Sql, id: string, startedMs: number, nowMs: number): Promise<void> {
  await sql.change(
    'INSERT INTO runner (id, started_ms, beat_ms) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE beat_ms = VALUES(beat_ms)',
    [id, startedMs, nowMs],
  );
  await sql.change('DELETE FROM runner WHERE beat_ms < ?', [nowMs - SILENT_MS]);
}

const SILENT_MS = 600_000;

export async function removeRunner(sql: Sql, id: string): Promise<void> {
  await sql.change('DELETE FROM runner WHERE id = ?', [id]);
}

/** When a runner was heard of last, real time in milliseconds; null where there is none. */
export async function lastBeat(sql: Sql): Promise<number | null> {
  const [row] = await sql.rows<{ last: number | null }>('SELECT MAX(beat_ms) AS last FROM runner');
  return row?.last ?? null;
}
