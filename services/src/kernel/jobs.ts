import { askCancel, findJob, finishJob, listJobs } from '@melto/store/jobs';
import type { ClaimedJob, JobRow } from '@melto/store/jobs';
import type { Context } from './context.ts';
import { unitOfWork } from './context.ts';
import { notFound, Problem } from './problem.ts';

export type { JobRow };

export type Progress = (fraction: number, words: string) => void;

/** The work of a kind of job: computes, then gives what stores the result within the job's own unit of work. */
export type JobHandler = (
  context: Context,
  input: unknown,
  onProgress: Progress,
) => Promise<(inner: Context) => Promise<number | undefined>>;

/** One handler for each kind of job. */
export type JobHandlers = ReadonlyMap<string, JobHandler>;

/** Does a claimed job, for the house and person it was asked for; its result is kept under the lease alone. */
export async function workJob(
  context: Context,
  handlers: JobHandlers,
  job: ClaimedJob,
  onProgress: Progress,
): Promise<void> {
  const handler = handlers.get(job.kind);
  if (handler === undefined)
    throw new Problem('bad-input', `There is no job of kind ${job.kind}.`, 'Update the runner.');
  const own = { ...context, database: context.database.as(job) };
  const store = await handler(own, JSON.parse(job.input), onProgress);
  await unitOfWork(own, async (inner) => {
    const resultId = await store(inner);
    // Nothing is kept where another runner has taken the job over or a person has cancelled it.
    if (!(await finishJob(inner.database, job, { state: 'done', resultId }, context.now())))
      throw new LostLease();
  });
}

/** The job is another runner's now, or a person has cancelled it: what was computed is thrown away. */
export class LostLease extends Error {
  constructor() {
    super('the lease was lost');
  }
}

const RECENT_MS = 15 * 60_000;

export function recentJobs(context: Context): Promise<JobRow[]> {
  return listJobs(context.database, context.now() - RECENT_MS);
}

export async function cancelJob(context: Context, id: number): Promise<void> {
  const job = await findJob(context.database, id);
  if (job === undefined) throw notFound(`job ${id}`);
  if (!(await askCancel(context.database, id, context.now())))
    throw new Problem(
      'conflict',
      'It was too late to cancel this: the work has ended.',
      job.state === 'done' ? 'Its result is stored.' : 'Nothing is left to cancel.',
    );
}
