import { randomUUID } from 'node:crypto';
import { composeServices } from '@melto/services/composition';
import { beatRunner, purgeJobs, purgeKeys, removeRunner } from '@melto/services/kernel/jobQueue';
import { keepCopies } from '@melto/services/house/copies';
import { readFeedFolders } from '@melto/services/press/feedFolders';
import type { SeenFiles } from '@melto/services/press/feedFolders';
import { Lane } from './lane.ts';
import { workThread } from './workThread.ts';

// The runner: its main thread claims jobs, keeps their leases and watches for cancels; the work runs in threads.
const BEAT_MS = 1000;
const TIDY_MS = 600_000;
const KEYS_KEPT_MS = 2 * 86_400_000;
const JOBS_KEPT_MS = 30 * 86_400_000;

const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const simulated = process.env['MELTO_SIMULATOR'] !== 'off';
const context = composeServices(url, { simulated });
const say = (error: unknown): void =>
  console.error(`runner: ${error instanceof Error ? error.message : String(error)}`);

const file = new URL('./worker.mjs', import.meta.url);
const lanes = (['quick', 'long'] as const).map(
  (lane) => new Lane(context, lane, () => workThread(file, { url, simulated })),
);
let stopping = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    stopping = true;
    for (const lane of lanes) lane.stop();
  });

const id = randomUUID();
const startedMs = Date.now();
let tidiedMs = 0;
/** Where copies of the house are kept; none where it is switched off. */
const copies = process.env['MELTO_COPIES'];
let copying = false;
/** Files of feeds that were looked at. */
const seen: SeenFiles = new Map();
let looking = false;
await Promise.all([...lanes.map((lane) => lane.run(say)), beat()]);
await removeRunner(context.database, id).catch(say);
await context.database.close();

/** Tells that it is alive, and forgets what is too old to be asked for. */
async function beat(): Promise<void> {
  while (!stopping) {
    try {
      const nowMs = Date.now();
      await beatRunner(context.database, id, startedMs, nowMs);
      void look();
      if (nowMs - tidiedMs > TIDY_MS) {
        tidiedMs = nowMs;
        await purgeKeys(context.database, nowMs - KEYS_KEPT_MS);
        await purgeJobs(context.database, nowMs - JOBS_KEPT_MS);
        if (copies !== undefined && copies !== 'off') void copy(copies, nowMs);
      }
    } catch (error) {
      say(error);
    }
    await new Promise((resolve) => setTimeout(resolve, BEAT_MS));
  }
}

/** Looks through the folders of feeds beside the beat. */
async function look(): Promise<void> {
  if (looking) return;
  looking = true;
  try {
    await readFeedFolders(context, seen);
  } catch (error) {
    say(error);
  } finally {
    looking = false;
  }
}

/** Keeps a copy of each day beside the beat, which does not wait for it. */
async function copy(folder: string, nowMs: number): Promise<void> {
  if (copying) return;
  copying = true;
  try {
    const made = await keepCopies(url ?? '', folder, nowMs);
    if (made !== undefined) console.log(`runner: a copy of the house is ${made}`);
  } catch (error) {
    say(error);
  } finally {
    copying = false;
  }
}
