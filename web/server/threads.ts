import { join } from 'node:path';
import { Piscina } from 'piscina';
import type { Context } from '@melto/services/kernel/context';
import { Problem } from '@melto/services/kernel/problem';

const IDLE_MS = 60_000;
/** What may wait for a thread. */
const MOST_WAITING = 24;
/** How long a file may be read, and how much of the memory that takes. */
export const READ_LIMITS = { ms: 15_000, megabytes: 512 } as const;

const fileOf = (name: string): string =>
  join(process.env['MELTO_ROOT'] ?? process.cwd(), `var/cache/server/${name}.mjs`);

/** Draws reports and slips in a thread of its own: 2,000 patches take seconds, in which pages are served on. */
export function drawThread(): Context['drawFile'] {
  const pool = new Piscina({
    filename: fileOf('drawFile'),
    ...{ minThreads: 0, maxThreads: 1, maxQueue: MOST_WAITING, idleTimeout: IDLE_MS },
  });
  return (task) => pool.run(task, { name: 'drawFile' }) as Promise<Uint8Array>;
}

/** Reads files that people give in a thread with limits: what is made to take long or much is refused. */
export function readThread(
  file = fileOf('readUpload'),
  limits: { ms: number; megabytes: number } = READ_LIMITS,
): Context['readUpload'] {
  const pool = new Piscina({
    filename: file,
    ...{ minThreads: 0, maxThreads: 2, maxQueue: MOST_WAITING, idleTimeout: IDLE_MS },
    resourceLimits: { maxOldGenerationSizeMb: limits.megabytes },
  });
  return (async (task: object) => {
    const signal = AbortSignal.timeout(limits.ms);
    try {
      return (await pool.run(task, { name: 'readUpload', signal })) as unknown;
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      const much = code === 'ERR_WORKER_OUT_OF_MEMORY';
      if (!much && !signal.aborted) throw error;
      throw new Problem(
        'too-large',
        much
          ? `The file takes more than ${limits.megabytes} MB of memory to read.`
          : `The file takes longer than ${limits.ms / 1000} s to read.`,
        'Nothing was stored. Give fewer rows at once, or export it in another form.',
        'file',
      );
    }
  }) as Context['readUpload'];
}
