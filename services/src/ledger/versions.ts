import { listReachedHeads } from '@melto/store/reached';
import {
  findHead,
  findResult,
  findResultFile,
  listResults,
  listStaleHeads,
  newestMadeFrom,
  removeHead,
  setHead,
} from '@melto/store/results';
import type { LinkName, ResultRow } from '@melto/store/results';
import { lockCondition } from '@melto/store/conditions';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { notFound } from '../kernel/problem.ts';
import { conditionName, conditionOf } from './conditions.ts';
import { requireDaylight } from './requireDaylight.ts';
import { staleSentence } from './stale.ts';
import type { StaleSentence } from './stale.ts';

export type { ResultRow };

/** A version of a link as lists show it. */
export interface VersionView {
  readonly id: number;
  readonly version: number;
  readonly madeMs: number;
  readonly author: string;
  readonly verdict: string | null;
  readonly inForce: boolean;
  /** Where it is taken over from another condition. */
  readonly borrowedFrom: { readonly conditionId: number; readonly name: string } | null;
  /** In words, where something it was made from has changed, and the shortest way back. */
  readonly stale: StaleSentence | null;
}

/** Versions that a time line has room for. */
const SHOWN = 60;

/** The latest versions of a link, oldest first; the one in force is always among them. */
export async function versionsOf(
  context: Context,
  condition: number,
  link: LinkName,
): Promise<VersionView[]> {
  const { database } = context;
  const [{ rows }, head, stale, reached] = await Promise.all([
    listResults(database, condition, [link], { limit: SHOWN }),
    findHead(database, condition, link),
    listStaleHeads(database, condition),
    listReachedHeads(database, condition),
  ]);
  const why = stale.find((row) => row.link === link);
  const lender =
    head === undefined || head.conditionId === condition
      ? null
      : await conditionOf(context, head.conditionId);
  const verdict = reached.find((row) => row.link === link)?.verdict;
  const shown = head === undefined || rows.some(({ id }) => id === head.id) ? rows : [...rows, head];
  return [...shown]
    .sort((a, b) => a.id - b.id)
    .map((row) => {
      const inForce = row.id === head?.id;
      return {
        id: row.id,
        version: row.version,
        madeMs: row.madeMs,
        author: row.author,
        verdict: inForce ? (verdict ?? row.verdict) : row.verdict,
        borrowedFrom:
          inForce && lender !== null ? { conditionId: lender.id, name: conditionName(lender) } : null,
        inForce,
        stale: inForce && why !== undefined ? staleSentence(why) : null,
      };
    });
}

/** Puts an earlier version in force again (undo). @returns its row. */
export async function putInForce(context: Context, id: number): Promise<ResultRow> {
  const row = await findResult(context.database, id);
  if (row === undefined) throw notFound(`result ${id}`);
  requireDaylight(row);
  await unitOfWork(context, async ({ database }) => {
    await lockCondition(database, row.conditionId);
    await setHead(database, row.conditionId, row.link, id);
    // Earlier curves replace the balance that stood on later ones; a balance stands on its own curves.
    if (row.link === 'curves') {
      const balance = await newestMadeFrom(database, row.conditionId, 'balance', id);
      if (balance === undefined) await removeHead(database, row.conditionId, 'balance');
      else await setHead(database, row.conditionId, 'balance', balance);
    }
  });
  return row;
}

export async function resultFile({ database }: Context, id: number, role: 'profile'): Promise<Download> {
  const file = await findResultFile(database, id, role);
  if (file === undefined) throw notFound(`${role} of result ${id}`);
  return { name: file.name, mediaType: file.mediaType, content: file.content };
}
