import { parentPort } from 'node:worker_threads';
import { composeServices } from '@melto/services/composition';
import { finishJob } from '@melto/services/kernel/jobQueue';
import { seedSource } from '@melto/services/kernel/seedSource';
import { Problem } from '@melto/services/kernel/problem';
import { HANDLERS } from './handlers.ts';
import type { FromWorker, ToWorker } from './messages.ts';

const port = parentPort;
if (port === null) throw new Error('the worker runs in a thread');
const post = (message: FromWorker): void => port.postMessage(message);

port.once('message', async ({ url, job }: ToWorker) => {
  const services = composeServices(url, { seed: seedSource(process.env['MELTO_SEED'], `job ${job.id}`) });
  try {
    const handler = HANDLERS.get(job.kind);
    if (handler === undefined)
      throw new Problem('bad-input', `There is no job of kind ${job.kind}.`, 'Update the runner.');
    const store = await handler(services, JSON.parse(job.input), (fraction, words) =>
      post({ kind: 'progress', fraction, words }),
    );
    await services.database.transaction(async (sql) => {
      const resultId = await store(sql);
      // Nothing is kept where another runner has taken the job over or a person has cancelled it.
      if (!(await finishJob(sql, job, { state: 'done', resultId }, Date.now())))
        throw new Error('the lease was lost');
    });
    post({ kind: 'done' });
  } catch (error) {
    const refused = error instanceof Problem;
    const words =
      error instanceof Problem
        ? `${error.title} ${error.detail}`
        : error instanceof Error
          ? error.message
          : String(error);
    post({ kind: 'failed', error: words, refused });
  } finally {
    await services.database.close();
  }
});
