import type { Sql } from '@melto/store/database';
import { listReachedHeads } from '@melto/store/reached';
import {
  findResult,
  findResultFile,
  listHeads,
  listResults,
  listStaleHeads,
  removeHead,
  setHead,
} from '@melto/store/results';
import type { LinkName, ResultRow } from '@melto/store/results';
import { lockWatch } from '@melto/store/watches';
import type { Download } from '../charts/charts.ts';
import { conditionOf } from './conditions.ts';
import type { Services } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { settleWatchById } from '../watch/settleWatch.ts';
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

export async function versionsOf(
  services: Services,
  condition: number,
  link: LinkName,
): Promise<VersionView[]> {
  const [results, heads, stale, reached] = await Promise.all([
    listResults(services.database, condition),
    listHeads(services.database, condition),
    listStaleHeads(services.database, condition),
    listReachedHeads(services.database, condition),
  ]);
  const headRow = heads.find((row) => row.link === link);
  const head = headRow?.id;
  const why = stale.find((row) => row.link === link);
  const lender =
    headRow === undefined || headRow.conditionId === condition
      ? null
      : await conditionOf(services, headRow.conditionId);
  const verdict = reached.find((row) => row.link === link)?.verdict;
  const own = results.filter((row) => row.link === link);
  const shown = headRow !== undefined && lender !== null ? [headRow, ...own] : own;
  return shown
    .map((row) => ({
      id: row.id,
      version: row.version,
      madeMs: row.madeMs,
      author: row.author,
      verdict: row.id === head ? (verdict ?? row.verdict) : row.verdict,
      borrowedFrom:
        row.id === head && lender !== null
          ? { conditionId: lender.id, name: `${lender.device} / ${lender.stock} / ${lender.mode}` }
          : null,
      inForce: row.id === head,
      stale: row.id === head && why !== undefined ? staleSentence(why) : null,
    }))
    .reverse();
}

export async function resultView<S, D>(
  services: Services,
  id: number,
  link: LinkName,
): Promise<{ readonly row: ResultRow; readonly summary: S; readonly detail: D }> {
  const row = await findResult(services.database, id);
  if (row === undefined || row.link !== link) throw notFound(`${link} result ${id}`);
  return { row, summary: JSON.parse(row.summary) as S, detail: JSON.parse(row.detail) as D };
}

/** Puts an earlier version in force again (undo). */
export async function putInForce(services: Services, id: number): Promise<void> {
  const row = await findResult(services.database, id);
  if (row === undefined) throw notFound(`result ${id}`);
  await services.database.transaction(async (sql) => {
    if (row.link === 'watch') await lockWatch(sql, id);
    await setHead(sql, row.conditionId, row.link, id);
    // Earlier curves replace the balance that stood on later ones; a balance stands on its own curves.
    if (row.link === 'curves') {
      const balance = await balanceOn(sql, row.conditionId, id);
      if (balance === undefined) await removeHead(sql, row.conditionId, 'balance');
      else await setHead(sql, row.conditionId, 'balance', balance);
    }
    if (row.link === 'watch') await settleWatchById(sql, id, Infinity);
  });
}

/** The newest balance that was made from certain curves. */
async function balanceOn(sql: Sql, condition: number, curves: number): Promise<number | undefined> {
  const [row] = await sql.rows<{ id: number | null }>(
    `SELECT MAX(r.id) AS id FROM result r JOIN result_source s ON s.result_id = r.id
     WHERE r.condition_id = ? AND r.link = 'balance' AND s.source_result_id = ?`,
    [condition, curves],
  );
  return row?.id ?? undefined;
}

export async function resultFile(services: Services, id: number, role: 'profile'): Promise<Download> {
  const file = await findResultFile(services.database, id, role);
  if (file === undefined) throw notFound(`${role} of result ${id}`);
  return { name: file.name, mediaType: file.mediaType, content: file.content };
}
