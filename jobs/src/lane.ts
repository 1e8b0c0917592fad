import { randomUUID } from 'node:crypto';
import { claimJob, finishJob, heartbeat, MOST_ATTEMPTS, retryJob } from '@melto/services/kernel/jobQueue';
import type { ClaimedJob, JobLane } from '@melto/services/kernel/jobQueue';
import type { Context } from '@melto/services/kernel/context';
import type { FromWorker } from './messages.ts';

/** A thread that does one job at a time; a lane keeps it for the next job as long as it lives. */
export interface WorkThread {
  /** Gives it a job; `onMessage` hears of it until it is done, has failed or the thread is gone. */
  start(job: ClaimedJob, onMessage: (message: FromWorker) => void): void;
  end(): Promise<void>;
}

export interface LaneTimes {
  readonly leaseMs: number;
  readonly heartbeatMs: number;
  readonly idleMs: number;
  /** After the first failure; doubled with each further one. */
  readonly backOffMs: number;
  /** While the database is away. */
  readonly awayMs: number;
}

export const LANE_TIMES: Readonly<Record<JobLane, LaneTimes>> = {
  long: { leaseMs: 8000, heartbeatMs: 500, idleMs: 400, backOffMs: 1000, awayMs: 500 },
  // Someone waits for these.
  quick: { leaseMs: 6000, heartbeatMs: 500, idleMs: 80, backOffMs: 250, awayMs: 300 },
};

/** Works through one lane of the queue until it is told to stop. */
export class Lane {
  #thread: WorkThread | undefined;
  #stopping = false;

  constructor(
    readonly context: Context,
    readonly lane: JobLane,
    readonly makeThread: () => WorkThread,
    readonly times: LaneTimes = LANE_TIMES[lane],
  ) {}

  stop(): void {
    this.#stopping = true;
  }

  async run(onTrouble: (error: unknown) => void = () => {}): Promise<void> {
    while (!this.#stopping) {
      try {
        if (!(await this.workNext())) await pause(this.times.idleMs);
      } catch (error) {
        // The database is away for a moment: wait for it.
        onTrouble(error);
        await pause(this.times.awayMs);
      }
    }
    await this.#endThread();
  }

  /** Does the next job that waits; false where none does. */
  async workNext(): Promise<boolean> {
    const { database, now } = this.context;
    const job = await claimJob(database, randomUUID(), now(), this.times.leaseMs, { lane: this.lane });
    if (job === undefined) return false;
    await this.#work(job);
    return true;
  }

  async #work(job: ClaimedJob): Promise<void> {
    const { database, now } = this.context;
    let progress = { fraction: 0, words: 'Starting' };
    let ended: Exclude<FromWorker, { kind: 'progress' }> | undefined;
    const done = new Promise<void>((resolve) => {
      this.#thread ??= this.makeThread();
      this.#thread.start(job, (message) => {
        if (message.kind === 'progress') progress = message;
        else {
          ended ??= message;
          resolve();
        }
      });
    });
    let why: 'stopping' | 'cancelled' | 'lost' | undefined;
    try {
      while (ended === undefined && why === undefined) {
        await Promise.race([done, pause(this.times.heartbeatMs)]);
        if (ended !== undefined) break;
        if (this.#stopping) why = 'stopping';
        else {
          const until = now() + this.times.leaseMs;
          const beat = await heartbeat(database, job, progress.fraction, progress.words, until);
          if (beat !== 'kept') why = beat;
        }
      }
    } finally {
      // Whatever ended the watching, the work does not go on unwatched: its lease would run out under it.
      if (ended === undefined) await this.#endThread();
    }
    const end = ended as Exclude<FromWorker, { kind: 'progress' }> | undefined;
    if (end === undefined) {
      if (why === 'cancelled') await finishJob(database, job, { state: 'cancelled' }, now());
      else if (why === 'stopping') await retryJob(database, job, now());
      return;
    }
    if (end.kind === 'done') return; // committed by the worker under its lease
    await this.#failed(job, end);
  }

  async #failed(
    job: ClaimedJob,
    { error, refused }: { readonly error: string; readonly refused: boolean },
  ): Promise<void> {
    const { database, now } = this.context;
    // It may have been cancelled in the moment in which it was to be stored.
    if ((await heartbeat(database, job, 0, '', now() + this.times.leaseMs)) === 'cancelled')
      await finishJob(database, job, { state: 'cancelled' }, now());
    else if (!refused && job.attempts + 1 < MOST_ATTEMPTS)
      await retryJob(database, job, now() + this.times.backOffMs * 2 ** job.attempts);
    else await finishJob(database, job, { state: 'failed', error }, now());
  }

  async #endThread(): Promise<void> {
    const thread = this.#thread;
    this.#thread = undefined;
    await thread?.end();
  }
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
