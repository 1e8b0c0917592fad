import { askCancel, findJob, insertJob, listJobs } from '@melto/store/jobs';
import type { JobRow } from '@melto/store/jobs';
import type { Sql } from '@melto/store/database';
import { LOCAL_PERSON } from './context.ts';
import type { Services } from './context.ts';
import { notFound, Problem } from './problem.ts';

export type { JobRow };

export type Progress = (fraction: number, words: string) => void;

/** The work of a kind of job: computes, then gives what stores the result within the job's own transaction. */
export type JobHandler = (
  services: Services,
  input: unknown,
  onProgress: Progress,
) => Promise<(sql: Sql) => Promise<number | undefined>>;

const RECENT_MS = 15 * 60_000;

export function recentJobs(services: Services): Promise<JobRow[]> {
  return listJobs(services.database, services.now() - RECENT_MS);
}

export async function cancelJob(services: Services, id: number): Promise<void> {
  const job = await findJob(services.database, id);
  if (job === undefined) throw notFound(`job ${id}`);
  if (!(await askCancel(services.database, id, services.now())))
    throw new Problem('conflict', 'This job has ended already.', 'Nothing is left to cancel.');
}

export const SAMPLE_HOUSE = 'sample-house';

export async function requestSampleHouse(services: Services): Promise<{ readonly jobId: number }> {
  const waiting = (await listJobs(services.database, services.now())).find(
    ({ kind }) => kind === SAMPLE_HOUSE,
  );
  if (waiting !== undefined) return { jobId: waiting.id };
  return {
    jobId: await insertJob(
      services.database,
      { kind: SAMPLE_HOUSE, conditionId: null, input: {} },
      LOCAL_PERSON,
      services.now(),
    ),
  };
}
