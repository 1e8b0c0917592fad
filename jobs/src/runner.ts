import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import { claimJob, finishJob, heartbeat, retryJob } from '@melto/services/kernel/jobQueue';
import type { ClaimedJob } from '@melto/services/kernel/jobQueue';
import { composeServices } from '@melto/services/composition';
import type { FromWorker, ToWorker } from './messages.ts';

// The runner: its main thread claims jobs, keeps their leases and watches for cancels; the work runs in a thread.
const LEASE_MS = 15_000;
const HEARTBEAT_MS = 500;
const IDLE_MS = 400;
const MOST_ATTEMPTS = 4;

const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const { database } = composeServices(url);
let stopping = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => (stopping = true));

while (!stopping) {
  try {
    const job = await claimJob(database, randomUUID(), Date.now(), LEASE_MS);
    if (job === undefined) await pause(IDLE_MS);
    else await run(job);
  } catch (error) {
    // The database is away for a moment: wait for it.
    console.error(`runner: ${error instanceof Error ? error.message : String(error)}`);
    await pause(2000);
  }
}
await database.close();

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}

async function run(job: ClaimedJob): Promise<void> {
  const worker = new Worker(new URL('./worker.mjs', import.meta.url));
  let progress = { fraction: 0, words: 'Starting' };
  let ended: FromWorker | undefined;
  const done = new Promise<void>((resolve) => {
    worker.on('message', (message: FromWorker) => {
      if (message.kind === 'progress') progress = message;
      else {
        ended = message;
        resolve();
      }
    });
    worker.on('error', (error) => {
      ended ??= { kind: 'failed', error: error.message, refused: false };
      resolve();
    });
    worker.on('exit', () => {
      ended ??= { kind: 'failed', error: 'the worker ended early', refused: false };
      resolve();
    });
  });
  const message: ToWorker = { url: url ?? '', job };
  worker.postMessage(message);
  let cancelled = false;
  while (ended === undefined) {
    await Promise.race([done, pause(HEARTBEAT_MS)]);
    if (ended !== undefined) break;
    if (
      stopping ||
      !(await heartbeat(database, job, progress.fraction, progress.words, Date.now() + LEASE_MS))
    ) {
      cancelled = !stopping;
      break;
    }
  }
  const end: FromWorker | undefined = ended; // ending the thread makes it look failed
  await worker.terminate();
  if (end === undefined || end.kind === 'progress') {
    // Cancelled by a person, or this runner stops and leaves the job to the next one.
    if (cancelled) await finishJob(database, job, { state: 'cancelled' }, Date.now());
    else await retryJob(database, job, Date.now());
    return;
  }
  if (end.kind === 'done') return; // committed by the worker under its lease
  if (!end.refused && job.attempts + 1 < MOST_ATTEMPTS)
    await retryJob(database, job, Date.now() + 1000 * 2 ** job.attempts);
  else await finishJob(database, job, { state: 'failed', error: end.error }, Date.now());
}
