import type { Sql } from './database.ts';
import type { FeedKind } from '@melto/core/press/feedKinds';
import { isDuplicate } from './database.ts';
import { updateFound } from './updateFound.ts';
import { lockRow } from './lockRow.ts';

export interface FeedRow {
  readonly id: number;
  readonly name: string;
  readonly kind: FeedKind;
  readonly folder: string | null;
  readonly runId: number | null;
  readonly run: string | null;
  /** Whether what it delivers is taken into the run by itself. */
  readonly byItself: boolean;
  readonly lastMs: number | null;
  /** What went wrong last, in words. */
  readonly trouble: string | null;
  readonly waiting: number;
}

const SELECT = `SELECT f.id, f.name, f.kind, f.folder, f.run_id AS runId, CASE WHEN r.id IS NULL THEN NULL ELSE CONCAT(r.job_number, ' ', r.title) END AS run, f.by_itself AS byItself,
  f.last_ms AS lastMs, f.trouble, (SELECT COUNT(*) FROM feed_delivery d WHERE d.feed_id = f.id AND d.state = 'waiting') AS waiting
  FROM feed f LEFT JOIN press_run r ON r.id = f.run_id`;

const rowOf = (row: FeedRow): FeedRow => ({
  ...row,
  byItself: Boolean(row.byItself),
  waiting: Number(row.waiting),
});

export async function listFeeds(sql: Sql): Promise<FeedRow[]> {
  const rows = await sql.rows<FeedRow>(
    `${SELECT} WHERE f.house_id = ? AND f.removed_ms IS NULL ORDER BY f.name, f.id LIMIT 200`,
    [sql.house],
  );
  return rows.map(rowOf);
}

/** Folders of all houses that are looked through, with who acts there. */
export async function listFolderFeeds(sql: Sql): Promise<
  {
    readonly id: number;
    readonly house: number;
    readonly person: number;
    readonly folder: string;
    readonly runId: number | null;
  }[]
> {
  return sql.rows(
    "SELECT id, house_id AS house, author_id AS person, folder, run_id AS runId FROM feed WHERE kind = 'folder' AND removed_ms IS NULL ORDER BY id LIMIT 500",
  );
}

/** @param lock keeps others out until the transaction ends. */
export async function findFeed(sql: Sql, id: number, lock = false): Promise<FeedRow | undefined> {
  if (lock) await lockRow(sql, 'feed', id);
  const [row] = await sql.rows<FeedRow>(
    `${SELECT} WHERE f.id = ? AND f.house_id = ? AND f.removed_ms IS NULL`,
    [...[id, sql.house]],
  );
  return row === undefined ? undefined : rowOf(row);
}

export async function insertFeed(
  sql: Sql,
  feed: Pick<FeedRow, 'name' | 'kind' | 'folder' | 'byItself'> & { readonly madeMs: number },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO feed (house_id, name, kind, folder, by_itself, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, feed.name, feed.kind, feed.folder, feed.byItself, sql.person, feed.madeMs],
  );
  return id;
}

/** Which run a feed reads, and whether by itself. */
export function pointFeed(sql: Sql, id: number, runId: number | null, byItself: boolean): Promise<boolean> {
  return updateFound(sql, 'feed', id, 'run_id = ?, by_itself = ?', [runId, byItself]);
}

export function setFeedRemoved(sql: Sql, id: number, removedMs: number | null): Promise<boolean> {
  return updateFound(sql, 'feed', id, 'removed_ms = ?', [removedMs]);
}

export function setFeedHeard(sql: Sql, id: number, lastMs: number, trouble: string | null): Promise<boolean> {
  return updateFound(sql, 'feed', id, 'last_ms = ?, trouble = ?', [lastMs, trouble]);
}

export type DeliveryState = 'waiting' | 'taken' | 'refused';

export interface DeliveryRow {
  readonly id: number;
  readonly key: string;
  readonly state: DeliveryState;
  readonly reason: string | null;
  readonly receivedMs: number;
  readonly digest: Buffer;
}

/** Keeps what was delivered; false where this key has come before. */
export async function insertDelivery(
  sql: Sql,
  delivery: {
    readonly feedId: number;
    readonly key: string;
    readonly digest: Buffer;
    readonly content: Buffer;
    readonly receivedMs: number;
  },
): Promise<number | undefined> {
  try {
    const { id } = await sql.change(
      "INSERT INTO feed_delivery (house_id, feed_id, delivery_key, digest, content, state, received_ms) VALUES (?, ?, ?, ?, ?, 'waiting', ?)",
      [sql.house, delivery.feedId, delivery.key, delivery.digest, delivery.content, delivery.receivedMs],
    );
    return id;
  } catch (error) {
    if (isDuplicate(error)) return undefined;
    throw error;
  }
}

export async function findDelivery(sql: Sql, feedId: number, key: string): Promise<DeliveryRow | undefined> {
  const [row] = await sql.rows<DeliveryRow>(
    'SELECT id, delivery_key AS `key`, state, reason, received_ms AS receivedMs, digest FROM feed_delivery WHERE feed_id = ? AND delivery_key = ? AND house_id = ?',
    [feedId, key, sql.house],
  );
  return row;
}

/** What waits to be taken in, the oldest first. */
export function listWaiting(
  sql: Sql,
  feedId: number,
  limit: number,
): Promise<
  { readonly id: number; readonly key: string; readonly content: Buffer; readonly receivedMs: number }[]
> {
  return sql.rows(
    "SELECT id, delivery_key AS `key`, content, received_ms AS receivedMs FROM feed_delivery WHERE feed_id = ? AND house_id = ? AND state = 'waiting' ORDER BY id LIMIT ?",
    [feedId, sql.house, String(limit)],
  );
}

/** What came of a delivery; its content goes where a sheet has it. */
export async function settleDelivery(
  sql: Sql,
  id: number,
  state: Exclude<DeliveryState, 'waiting'>,
  runId: number | null,
  reason: string | null,
): Promise<void> {
  await sql.change(
    `UPDATE feed_delivery SET state = ?, run_id = ?, reason = ?${state === 'taken' ? ', content = NULL' : ''} WHERE id = ? AND house_id = ?`,
    [state, runId, reason, id, sql.house],
  );
}
