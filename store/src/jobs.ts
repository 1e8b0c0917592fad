import type { Database, Sql } from './database.ts';

export type JobState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled';

export interface JobRow {
  readonly id: number;
  readonly kind: string;
  readonly conditionId: number | null;
  readonly state: JobState;
  readonly fraction: number;
  readonly words: string;
  readonly resultId: number | null;
  readonly error: string | null;
  readonly madeMs: number;
  readonly finishedMs: number | null;
}

export interface ClaimedJob {
  readonly id: number;
  readonly kind: string;
  readonly input: string;
  readonly attempts: number;
  readonly author: number;
  readonly token: string;
}

const COLUMNS =
  'id, kind, condition_id AS conditionId, state, fraction, words, result_id AS resultId, error, made_ms AS madeMs, finished_ms AS finishedMs FROM job';

export async function insertJob(
  sql: Sql,
  job: { readonly kind: string; readonly conditionId: number | null; readonly input: unknown },
  author: number,
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    "INSERT INTO job (kind, condition_id, input, state, available_ms, author_id, made_ms) VALUES (?, ?, ?, 'queued', ?, ?, ?)",
    [job.kind, job.conditionId, JSON.stringify(job.input), nowMs, author, nowMs],
  );
  return id;
}

/** Jobs that wait or run, and those that ended since `sinceMs`. */
export function listJobs(sql: Sql, sinceMs: number): Promise<JobRow[]> {
  return sql.rows(
    `(SELECT ${COLUMNS} WHERE state IN ('queued', 'running')) UNION ALL (SELECT ${COLUMNS} WHERE finished_ms >= ? ORDER BY finished_ms DESC LIMIT 50) ORDER BY id`,
    [sinceMs],
  );
}

export async function findJob(sql: Sql, id: number): Promise<JobRow | undefined> {
  const [row] = await sql.rows<JobRow>(`SELECT ${COLUMNS} WHERE id = ?`, [id]);
  return row;
}

/**
 * Takes the next job that waits or whose lease ran out. The index serves the order: a sort would lock every waiting
 * job while it runs, and other runners would find none.
 */
export function claimJob(
  database: Database,
  token: string,
  nowMs: number,
  leaseMs: number,
): Promise<ClaimedJob | undefined> {
  return database.transaction(async (sql) => {
    // Found by a plain read first: an update that scans would lock waiting jobs for a moment, and hide them.
    const expired = await sql.rows<{ id: number }>(
      "SELECT id FROM job WHERE state = 'running' AND lease_until_ms < ?",
      [nowMs],
    );
    for (const { id } of expired)
      await sql.change(
        "UPDATE job SET state = 'queued', available_ms = ? WHERE id = ? AND state = 'running' AND lease_until_ms < ?",
        [nowMs, id, nowMs],
      );
    const [row] = await sql.rows<Omit<ClaimedJob, 'token'>>(
      `SELECT id, kind, input, attempts, author_id AS author FROM job FORCE INDEX (job_queue) WHERE state = 'queued' AND available_ms <= ?
       ORDER BY available_ms, id LIMIT 1 FOR UPDATE SKIP LOCKED`,
      [nowMs],
    );
    if (row === undefined) return undefined;
    await sql.change(
      "UPDATE job SET state = 'running', attempts = attempts + 1, lease_token = ?, lease_until_ms = ? WHERE id = ?",
      [token, nowMs + leaseMs, row.id],
    );
    return { ...row, token };
  }, 'READ COMMITTED');
}

/** Renews the lease and tells progress; false where the lease was lost or a cancel was asked for. */
export async function heartbeat(
  sql: Sql,
  job: ClaimedJob,
  fraction: number,
  words: string,
  leaseUntilMs: number,
): Promise<boolean> {
  const { affected } = await sql.change(
    "UPDATE job SET fraction = ?, words = ?, lease_until_ms = ? WHERE id = ? AND lease_token = ? AND state = 'running' AND cancel_asked = 0",
    [fraction, words.slice(0, 200), leaseUntilMs, job.id, job.token],
  );
  return affected > 0;
}

/** Ends a job under its lease; false where the lease is not this runner's any more. */
export async function finishJob(
  sql: Sql,
  job: ClaimedJob,
  end: {
    readonly state: 'done' | 'failed' | 'cancelled';
    readonly resultId?: number;
    readonly error?: string;
  },
  nowMs: number,
): Promise<boolean> {
  const { affected } = await sql.change(
    `UPDATE job SET state = ?, result_id = ?, error = ?, finished_ms = ?, lease_token = NULL, fraction = IF(? = 'done', 1, fraction)
     WHERE id = ? AND lease_token = ? AND state = 'running'`,
    [end.state, end.resultId ?? null, end.error?.slice(0, 1000) ?? null, nowMs, end.state, job.id, job.token],
  );
  return affected > 0;
}

/** Puts a job back for another try after a failure that was not its own. */
export async function retryJob(sql: Sql, job: ClaimedJob, availableMs: number): Promise<void> {
  await sql.change(
    "UPDATE job SET state = 'queued', available_ms = ?, lease_token = NULL WHERE id = ? AND lease_token = ?",
    [availableMs, job.id, job.token],
  );
}

/** Cancels a job that waits, or asks the runner of one that runs to stop; false where it has ended. */
export async function askCancel(sql: Sql, id: number, nowMs: number): Promise<boolean> {
  const waiting = await sql.change(
    "UPDATE job SET state = 'cancelled', finished_ms = ? WHERE id = ? AND state = 'queued'",
    [nowMs, id],
  );
  if (waiting.affected > 0) return true;
  return (
    (await sql.change("UPDATE job SET cancel_asked = 1 WHERE id = ? AND state = 'running'", [id])).affected >
    0
  );
}
