import type { Acting, Database, Sql } from './database.ts';

export type JobState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
/** Work that someone waits for, and work that takes its time: neither holds up the other. */
export type JobLane = 'quick' | 'long';

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
  /** From when on a runner may take it. */
  readonly availableMs: number;
  readonly finishedMs: number | null;
}

/** A job under a lease, with the house and person it is done for. */
export interface ClaimedJob extends Acting {
  readonly id: number;
  readonly kind: string;
  readonly input: string;
  readonly attempts: number;
  readonly token: string;
}

const COLUMNS =
  'id, kind, condition_id AS conditionId, state, fraction, words, result_id AS resultId, error, made_ms AS madeMs, available_ms AS availableMs, finished_ms AS finishedMs FROM job';

/** A job that failed this often is not tried again. */
export const MOST_ATTEMPTS = 4;
/**
 * Nor one whose runner ended this often before it was done. Quick work may well be met a few times by a runner that is
 * killed from outside, and judging must not be lost to that; long work that ends its runner is likely the cause of it.
 */
export const MOST_KILLS: Readonly<Record<JobLane, number>> = { quick: 20, long: 4 };
const killed = (times: number): string =>
  `The work was begun ${times} times and its runner ended each time before it was done. Nothing was stored; ask for it again, with less at once if it is large.`;

export interface NewJob {
  readonly kind: string;
  readonly lane: JobLane;
  readonly conditionId: number | null;
  readonly readingId?: number;
  readonly input: unknown;
}

export async function insertJob(sql: Sql, job: NewJob, nowMs: number): Promise<number> {
  const { id } = await sql.change(
    "INSERT INTO job (house_id, kind, lane, condition_id, reading_id, input, state, available_ms, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, 'queued', ?, ?, ?)",
    [
      sql.house,
      job.kind,
      job.lane,
      job.conditionId,
      job.readingId ?? null,
      JSON.stringify(job.input),
      nowMs,
      sql.person,
      nowMs,
    ],
  );
  return id;
}

/** Long jobs of the house that wait or run, and those that ended since `sinceMs`. */
export function listJobs(sql: Sql, sinceMs: number): Promise<JobRow[]> {
  return sql.rows(
    `(SELECT ${COLUMNS} WHERE lane = 'long' AND state IN ('queued', 'running') AND house_id = ?) UNION ALL
     (SELECT ${COLUMNS} WHERE finished_ms >= ? AND lane = 'long' AND house_id = ? ORDER BY finished_ms DESC LIMIT 50) ORDER BY id`,
    [sql.house, sinceMs, sql.house],
  );
}

export async function findJob(sql: Sql, id: number): Promise<JobRow | undefined> {
  const [row] = await sql.rows<JobRow>(`SELECT ${COLUMNS} WHERE id = ? AND house_id = ?`, [id, sql.house]);
  return row;
}

/** The job of a kind that waits or runs. */
export async function findWaitingJob(sql: Sql, kind: string): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number }>(
    "SELECT id FROM job WHERE house_id = ? AND kind = ? AND state IN ('queued', 'running') ORDER BY id LIMIT 1",
    [sql.house, kind],
  );
  return row?.id;
}

/** The latest job of a reading. */
export async function latestJobOfReading(
  sql: Sql,
  kind: string,
  reading: number,
): Promise<JobRow | undefined> {
  const [row] = await sql.rows<JobRow>(
    `SELECT ${COLUMNS} WHERE reading_id = ? AND kind = ? AND house_id = ? ORDER BY id DESC LIMIT 1`,
    [reading, kind, sql.house],
  );
  return row;
}

/** Moves the time of a job that waits for a reading and is not begun; false where none waits. */
export async function moveWaitingJob(
  sql: Sql,
  kind: string,
  reading: number,
  availableMs: number,
): Promise<boolean> {
  const { affected } = await sql.change(
    "UPDATE job SET available_ms = ?, attempts = 0 WHERE reading_id = ? AND kind = ? AND state = 'queued' AND house_id = ?",
    [availableMs, reading, kind, sql.house],
  );
  return affected > 0;
}

/**
 * Takes the next job of a lane that waits or whose lease ran out, of any house; with `id` that one alone. The index
 * serves the order: a sort would lock every waiting job while it runs, and other runners would find none.
 */
export function claimJob(
  database: Database,
  token: string,
  nowMs: number,
  leaseMs: number,
  wanted: { readonly lane: JobLane } | { readonly id: number },
): Promise<ClaimedJob | undefined> {
  return database.transaction(async (sql) => {
    await freeExpired(sql, nowMs);
    const [row] = await sql.rows<Omit<ClaimedJob, 'token'>>(
      'lane' in wanted
        ? `SELECT id, kind, input, attempts, house_id AS house, author_id AS person FROM job FORCE INDEX (job_queue)
           WHERE lane = ? AND state = 'queued' AND available_ms <= ? ORDER BY available_ms, id LIMIT 1 FOR UPDATE SKIP LOCKED`
        : `SELECT id, kind, input, attempts, house_id AS house, author_id AS person FROM job
           WHERE id = ? AND state = 'queued' AND available_ms <= ? FOR UPDATE SKIP LOCKED`,
      ['lane' in wanted ? wanted.lane : wanted.id, nowMs],
    );
    if (row === undefined) return undefined;
    await sql.change(
      "UPDATE job SET state = 'running', attempts = attempts + 1, lease_token = ?, lease_until_ms = ? WHERE id = ?",
      [token, nowMs + leaseMs, row.id],
    );
    return { ...row, token };
  });
}

/** Puts jobs back whose runners are gone; those that ended a runner too often have failed. */
async function freeExpired(sql: Sql, nowMs: number): Promise<void> {
  // Found by a plain read first: an update that scans would lock waiting jobs for a moment, and hide them.
  const expired = await sql.rows<{ id: number; lane: JobLane; attempts: number; cancelled: number }>(
    "SELECT id, lane, attempts, cancel_asked AS cancelled FROM job WHERE state = 'running' AND lease_until_ms < ?",
    [nowMs],
  );
  for (const { id, lane, attempts, cancelled } of expired) {
    const still = "WHERE id = ? AND state = 'running' AND lease_until_ms < ?";
    if (cancelled === 1)
      await sql.change(`UPDATE job SET state = 'cancelled', finished_ms = ?, lease_token = NULL ${still}`, [
        nowMs,
        id,
        nowMs,
      ]);
    else if (attempts >= MOST_KILLS[lane])
      await sql.change(
        `UPDATE job SET state = 'failed', error = ?, finished_ms = ?, lease_token = NULL ${still}`,
        [killed(attempts), nowMs, id, nowMs],
      );
    else
      await sql.change(`UPDATE job SET state = 'queued', available_ms = ?, lease_token = NULL ${still}`, [
        nowMs,
        id,
        nowMs,
      ]);
  }
}

/** What a heartbeat finds: the lease stands, a person wants the job cancelled, or another runner has it. */
export type Heartbeat = 'kept' | 'cancelled' | 'lost';

/** Renews the lease and tells progress. */
export async function heartbeat(
  sql: Sql,
  job: ClaimedJob,
  fraction: number,
  words: string,
  leaseUntilMs: number,
): Promise<Heartbeat> {
  const { affected } = await sql.change(
    "UPDATE job SET fraction = ?, words = ?, lease_until_ms = ? WHERE id = ? AND lease_token = ? AND state = 'running' AND cancel_asked = 0",
    [fraction, words.slice(0, 200), leaseUntilMs, job.id, job.token],
  );
  if (affected > 0) return 'kept';
  const own = await sql.rows("SELECT id FROM job WHERE id = ? AND lease_token = ? AND state = 'running'", [
    job.id,
    job.token,
  ]);
  return own.length > 0 ? 'cancelled' : 'lost';
}

/** Ends a job under its lease; false where the lease is not this runner's any more, or where it was cancelled first. */
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
     WHERE id = ? AND lease_token = ? AND state = 'running' AND (? <> 'done' OR cancel_asked = 0)`,
    [
      end.state,
      end.resultId ?? null,
      end.error?.slice(0, 1000) ?? null,
      nowMs,
      end.state,
      job.id,
      job.token,
      end.state,
    ],
  );
  return affected > 0;
}

/** Puts a job back for another try after a failure that was not its own. */
export async function retryJob(sql: Sql, job: ClaimedJob, availableMs: number): Promise<void> {
  await sql.change(
    "UPDATE job SET state = 'queued', available_ms = ?, lease_token = NULL WHERE id = ? AND lease_token = ? AND state = 'running'",
    [availableMs, job.id, job.token],
  );
}

/** Cancels a job that waits, or asks the runner of one that runs to stop; false where it has ended already. */
export async function askCancel(sql: Sql, id: number, nowMs: number): Promise<boolean> {
  const waiting = await sql.change(
    "UPDATE job SET state = 'cancelled', finished_ms = ? WHERE id = ? AND house_id = ? AND state = 'queued'",
    [nowMs, id, sql.house],
  );
  if (waiting.affected > 0) return true;
  return (
    (
      await sql.change(
        "UPDATE job SET cancel_asked = 1 WHERE id = ? AND house_id = ? AND state = 'running'",
        [id, sql.house],
      )
    ).affected > 0
  );
}

/** Forgets jobs of all houses that ended well before a time. */
export async function purgeJobs(sql: Sql, beforeMs: number): Promise<number> {
  return (
    await sql.change("DELETE FROM job WHERE state IN ('done', 'cancelled') AND finished_ms < ? LIMIT 10000", [
      beforeMs,
    ])
  ).affected;
}

/** Conditions that long work waits or runs for. */
export async function listBusyConditions(sql: Sql): Promise<number[]> {
  const rows = await sql.rows<{ id: number }>(
    "SELECT DISTINCT condition_id AS id FROM job WHERE lane = 'long' AND state IN ('queued', 'running') AND house_id = ? AND condition_id IS NOT NULL",
    [sql.house],
  );
  return rows.map(({ id }) => id);
}
