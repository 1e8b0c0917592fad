import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { WorkElsewhere } from '@melto/core/profile/buildInkProfile';
import type { IntentTables } from '@melto/core/profile/inkIntents';

/** Intents of a profile. */
const MOST = 3;

/** Threads in which the intents of a profile are worked out side by side. */
export interface IntentThreads {
  readonly work: WorkElsewhere;
  end(): Promise<void>;
}

/**
 * Threads from the bundle of `core/profile/inkIntents`, as many as the machine has cores.
 * @returns undefined where there is one core only, or no bundle: the work is done where it is asked for.
 */
export function intentThreads(bundle: URL, cores = availableParallelism()): IntentThreads | undefined {
  const filename = fileURLToPath(bundle);
  if (cores < 2 || !existsSync(filename)) return undefined;
  // A thread that is not needed any more ends by itself, and keeps no process alive.
  const pool = new Piscina({ filename, minThreads: 0, maxThreads: Math.min(MOST, cores), idleTimeout: 1000 });
  return {
    work: (task) => pool.run(task, { name: 'workIntent' }) as Promise<IntentTables>,
    end: () => pool.close({ force: true }),
  };
}
