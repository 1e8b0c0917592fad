import { insertJob, latestJobOfReading, moveWaitingJob } from '@melto/store/jobs';
import { resultOfReading } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';

/** The kind of job that judges a complete reading. */
export const JUDGE = 'judge';

export interface JudgeInput {
  readonly readingId: number;
}

/** Passes of one strip follow each other within this; then what is there is judged, should no other follow. */
const MORE_MS = 60_000;

/**
 * Asks for a complete reading to be judged, within the unit of work that completed it: whatever ends the server then,
 * the judging is not lost. One that waits already will see what was stored now and serves; where more passes are to
 * follow it waits for them.
 */
export async function askForJudging(
  { database, now }: Context,
  conditionId: number,
  readingId: number,
  more: boolean,
): Promise<void> {
  const atMs = now() + (more ? MORE_MS : 0);
  if (await moveWaitingJob(database, JUDGE, readingId, atMs)) return;
  const input: JudgeInput = { readingId };
  await insertJob(database, { kind: JUDGE, lane: 'quick', conditionId, readingId, input }, atMs);
}

/** How far the judging of a reading is. */
export interface Judging {
  readonly state: 'none' | 'waits' | 'done' | 'failed';
  /** The check that it led to. */
  readonly resultId: number | null;
  /** Why it could not be judged. */
  readonly problem: string | null;
}

export async function judgingOf({ database, now }: Context, readingId: number): Promise<Judging> {
  const [job, result] = await Promise.all([
    latestJobOfReading(database, JUDGE, readingId),
    resultOfReading(database, readingId, 'conformity'),
  ]);
  const resultId = result?.id ?? null;
  if (job === undefined) return { state: resultId === null ? 'none' : 'done', resultId, problem: null };
  if (job.state === 'failed') return { state: 'failed', resultId, problem: job.error };
  // One that is put off for further passes is not worth waiting for.
  const waits = job.state === 'running' || (job.state === 'queued' && job.availableMs <= now());
  return waits ? { state: 'waits', resultId, problem: null } : { state: 'done', resultId, problem: null };
}

const POLL_MS = 60;

/** Waits until a reading has been judged, for some seconds at most; to be asked outside any unit of work. */
export async function judgedSoon(context: Context, readingId: number, mostMs: number): Promise<Judging> {
  const until = Date.now() + mostMs;
  for (;;) {
    const judging = await judgingOf(context, readingId);
    if (judging.state !== 'waits' || Date.now() > until) return judging;
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
}
