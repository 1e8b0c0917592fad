import { createHash } from 'node:crypto';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import {
  findDelivery,
  findFeed,
  insertDelivery,
  insertFeed,
  listFeeds,
  listWaiting,
  pointFeed,
  setFeedHeard,
  setFeedRemoved,
  settleDelivery,
} from '@melto/store/feeds';
import type { FeedKind } from '@melto/core/press/feedKinds';
import type { FeedRow } from '@melto/store/feeds';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { runOf } from './runs.ts';
import { takeIntoRun } from './sheets.ts';

export type { FeedRow };

/** Deliveries that one act takes in. */
const MOST_AT_ONCE = 2000;

export function feeds({ database }: Context): Promise<FeedRow[]> {
  return listFeeds(database);
}

export async function createFeed(
  context: Context,
  input: {
    readonly name: string;
    readonly kind: FeedKind;
    readonly folder?: string;
    readonly byItself: boolean;
  },
): Promise<{ readonly id: number }> {
  const name = named(input.name, 'name', 'feed');
  const folder = input.folder?.trim();
  if (input.kind === 'folder' && (folder === undefined || !folder.startsWith('/')))
    throw new Problem('bad-input', 'The folder is not told.', 'Give its whole path on the server.', 'folder');
  return unitOfWork(context, async ({ database, now }) => ({
    id: await insertFeed(database, {
      ...{ name, kind: input.kind, byItself: input.byItself, madeMs: now() },
      folder: input.kind === 'folder' ? (folder ?? null) : null,
    }),
  }));
}

/** Tells a feed which run it reads, and whether that takes it in by itself; what waits is then taken in at once. */
export async function setFeedRun(
  context: Context,
  id: number,
  { runId, byItself }: { readonly runId: number | null; readonly byItself: boolean },
): Promise<void> {
  await unitOfWork(context, async (inner) => {
    if (runId !== null) await runOf(inner, runId);
    if (!(await pointFeed(inner.database, id, runId, byItself))) throw notFound(`feed ${id}`);
  });
  if (byItself && runId !== null) await takeWaiting(context, id);
}

export async function removeFeed(context: Context, id: number, removed: boolean): Promise<void> {
  await unitOfWork(context, async ({ database, now }) => {
    if (!(await setFeedRemoved(database, id, removed ? now() : null))) throw notFound(`feed ${id}`);
  });
}

export interface Delivered {
  /** `again`: the same delivery has come before. */
  readonly state: 'taken' | 'waiting' | 'again';
  readonly open?: number;
}

/**
 * Takes what a feed delivers. It is stored before anything else is done with it: what the run cannot take now waits, and
 * what comes twice under its key is known again.
 */
export async function deliver(
  context: Context,
  feedId: number,
  { key, ...sheet }: IncomingSheet & { readonly key: string },
): Promise<Delivered> {
  const content = Buffer.from(JSON.stringify(sheet));
  const digest = createHash('sha256').update(content).digest();
  return unitOfWork(context, async (inner) => {
    const { database, now } = inner;
    const feed = await findFeed(database, feedId, true);
    if (feed === undefined) throw notFound(`feed ${feedId}`);
    const known = await findDelivery(database, feedId, key);
    if (known !== undefined) {
      if (!known.digest.equals(digest))
        throw new Problem(
          'conflict',
          `Delivery “${key}” has come before with other values.`,
          'Give each delivery a key of its own.',
          'key',
        );
      return { state: 'again' };
    }
    const takes = feed.byItself && feed.runId !== null;
    // A sheet that the run refuses is not stored either: the sender hears why, and nothing else would mend it.
    const taken = takes ? await takeIntoRun(inner, await runOf(inner, feed.runId, true), sheet) : undefined;
    const id = await insertDelivery(database, { feedId, key, digest, content, receivedMs: now() });
    if (id === undefined) return { state: 'again' };
    if (taken !== undefined) await settleDelivery(database, id, 'taken', feed.runId, null);
    await setFeedHeard(database, feedId, now(), null);
    return taken === undefined ? { state: 'waiting' } : { state: 'taken', open: taken.open };
  });
}

/** Takes in what waits at a feed, in the order in which it came; what a run refuses stays with the reason. */
export async function takeWaiting(
  context: Context,
  feedId: number,
): Promise<{ readonly taken: number; readonly refused: number }> {
  let [taken, refused] = [0, 0];
  await unitOfWork(context, async (inner) => {
    const feed = await findFeed(inner.database, feedId, true);
    if (feed === undefined) throw notFound(`feed ${feedId}`);
    if (feed.runId === null)
      throw new Problem('not-ready', 'This feed reads no run.', 'Choose the run first.', 'runId');
    [taken, refused] = [0, 0];
    for (const { id, content } of await listWaiting(inner.database, feedId, MOST_AT_ONCE)) {
      const run = await runOf(inner, feed.runId, true);
      try {
        await takeIntoRun(inner, run, JSON.parse(content.toString()) as IncomingSheet);
        await settleDelivery(inner.database, id, 'taken', feed.runId, null);
        taken++;
      } catch (error) {
        if (!(error instanceof Problem) || error.type === 'not-ready') throw error;
        await settleDelivery(inner.database, id, 'refused', feed.runId, error.title);
        refused++;
      }
    }
  });
  return { taken, refused };
}
