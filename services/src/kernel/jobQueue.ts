/** The queue as the runner uses it; re-exported so that jobs need not know the store. */
export { claimJob, finishJob, heartbeat, retryJob } from '@melto/store/jobs';
export type { ClaimedJob } from '@melto/store/jobs';
