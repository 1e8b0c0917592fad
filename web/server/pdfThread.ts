import { join } from 'node:path';
import { Piscina } from 'piscina';
import type { Context } from '@melto/services/kernel/context';

const IDLE_MS = 60_000;
/** Reports that may wait for the thread. */
const MOST_WAITING = 24;

/** Draws reports and slips in a thread of its own: 2,000 patches take seconds, in which pages are served on. */
export function pdfThread(): Context['drawPdf'] {
  const pool = new Piscina({
    filename: join(process.env['MELTO_ROOT'] ?? process.cwd(), 'var/cache/server/drawPdf.mjs'),
    minThreads: 0,
    maxThreads: 1,
    maxQueue: MOST_WAITING,
    idleTimeout: IDLE_MS,
  });
  return (task) => pool.run(task, { name: 'drawPdf' }) as Promise<Uint8Array>;
}
