/** The queue as the runner uses it; re-exported so that jobs need not know the store. */
export {
  claimJob,
  finishJob,
  heartbeat,
  MOST_ATTEMPTS,
  MOST_KILLS,
  purgeJobs,
  retryJob,
} from '@melto/store/jobs';
export type { ClaimedJob, JobLane } from '@melto/store/jobs';
export { purgeKeys } from '@melto/store/idempotency';
export { beatRunner, lastBeat, removeRunner } from '@melto/store/runners';
