import { parentPort, workerData } from 'node:worker_threads';
import { composeServices } from '@melto/services/composition';
import { workJob } from '@melto/services/kernel/jobs';
import { Problem } from '@melto/services/kernel/problem';
import { seedSource } from '@melto/services/kernel/seedSource';
import { intentThreads } from '@melto/threads/intentThreads';
import { HANDLERS } from './handlers.ts';
import type { FromWorker, ToWorker, WorkerData } from './messages.ts';

// The thread in which the work of a lane is done, one job after another; ending it ends the work.
const port = parentPort;
if (port === null) throw new Error('the worker runs in a thread');
const post = (message: FromWorker): void => port.postMessage(message);
const { url, simulated } = workerData as WorkerData;
const threads = intentThreads(new URL('./inkIntents.mjs', import.meta.url));
const services = composeServices(url, { simulated, workIntent: threads?.work });

port.on('message', async ({ job }: ToWorker) => {
  const context = { ...services, seed: seedSource(process.env['MELTO_SEED'], `job ${job.id}`) };
  try {
    await workJob(context, HANDLERS, job, (fraction, words) => post({ kind: 'progress', fraction, words }));
    post({ kind: 'done' });
  } catch (error) {
    const refused = error instanceof Problem;
    const words = refused
      ? `${error.title} ${error.detail}`
      : error instanceof Error
        ? error.message
        : String(error);
    post({ kind: 'failed', error: words, refused });
  }
});
