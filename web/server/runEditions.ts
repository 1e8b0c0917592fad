import { editionsOf } from '@melto/services/press/runs';
import type { Context } from '@melto/services/kernel/context';
import { log } from './log';

/** A sheet is to be seen within 300 ms of its arrival: asking takes a few of them, drawing some tens. */
const POLL_MS = 60;

interface Watched {
  readonly context: Context;
  readonly id: number;
  edition: number;
  readonly tell: (text: string) => void;
}

const watched = new Set<Watched>();
let timer: ReturnType<typeof setInterval> | undefined;
let asking = false;

/** One question for all runs that a house looks at; it stops with the last of them. */
async function poll(): Promise<void> {
  if (asking) return;
  asking = true;
  try {
    const houses = new Map<number, Watched[]>();
    for (const one of watched) {
      const { house } = one.context.database;
      houses.set(house, [...(houses.get(house) ?? []), one]);
    }
    for (const together of houses.values()) {
      const ids = [...new Set(together.map(({ id }) => id))];
      const editions = await editionsOf(together[0].context, ids);
      for (const one of together) {
        const edition = editions.get(one.id);
        if (edition === undefined || edition === one.edition) continue;
        one.edition = edition;
        one.tell(String(edition));
      }
    }
  } catch (error) {
    log.error({ err: error }, 'the stream of runs');
  } finally {
    asking = false;
  }
}

/** Tells a run's edition when it grows; returns what ends it. */
export function watchEdition(context: Context, id: number, tell: (text: string) => void): () => void {
  const one: Watched = { context, id, edition: 0, tell };
  watched.add(one);
  timer ??= setInterval(() => void poll(), POLL_MS);
  return () => {
    watched.delete(one);
    if (watched.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
}
