import { Worker } from 'node:worker_threads';
import type { WorkThread } from './lane.ts';
import type { FromWorker, ToWorker, WorkerData } from './messages.ts';

/** A worker thread from its bundle. One that ends by itself fails its job and makes room for another. */
export function workThread(file: URL, data: WorkerData): WorkThread {
  let worker: Worker | undefined;
  let hear: (message: FromWorker) => void = () => {};
  const open = (): Worker => {
    const opened = new Worker(file, { workerData: data });
    opened.on('message', (message: FromWorker) => hear(message));
    const gone = (error: string): void => {
      if (worker === opened) worker = undefined;
      hear({ kind: 'failed', error, refused: false });
    };
    opened.on('error', (error) => gone(error instanceof Error ? error.message : String(error)));
    opened.on('exit', () => gone('the worker ended early'));
    return opened;
  };
  return {
    start(job, onMessage) {
      hear = onMessage;
      worker ??= open();
      const message: ToWorker = { job };
      worker.postMessage(message);
    },
    async end() {
      hear = () => {};
      const ended = worker;
      worker = undefined;
      await ended?.terminate();
    },
  };
}
