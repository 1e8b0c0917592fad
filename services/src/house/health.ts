import type { Context } from '../kernel/context.ts';
import { lastBeat } from '../kernel/jobQueue.ts';

/** A runner that was not heard of for this long is taken as gone. */
const SILENT_MS = 6000;

/** Whether the parts that the application stands on answer. */
export interface Health {
  readonly ok: boolean;
  readonly database: boolean;
  readonly runner: boolean;
}

export async function health({ database }: Context, realMs: number): Promise<Health> {
  try {
    const beat = await lastBeat(database);
    const runner = beat !== null && realMs - beat < SILENT_MS;
    return { ok: runner, database: true, runner };
  } catch {
    // Whatever the database answered, it is no answer to stand on.
    return { ok: false, database: false, runner: false };
  }
}
