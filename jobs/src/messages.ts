import type { ClaimedJob } from '@melto/services/kernel/jobQueue';

/** What a worker thread starts with. */
export interface WorkerData {
  readonly url: string;
  readonly simulated: boolean;
}

export interface ToWorker {
  readonly job: ClaimedJob;
}

export type FromWorker =
  | { readonly kind: 'progress'; readonly fraction: number; readonly words: string }
  | { readonly kind: 'done' }
  /** `refused`: the input is at fault, another try would fail as well. */
  | { readonly kind: 'failed'; readonly error: string; readonly refused: boolean };
