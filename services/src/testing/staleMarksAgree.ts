import { listHeadMarks, listHeadSources, listStaleHeads } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { markKey, staleMarks } from '../ledger/staleMarks.ts';

/**
 * Fails where the floor's quick way does not find stale what the query with the reasons does.
 */
export async function staleMarksAgree({ database }: Context): Promise<void> {
  const quick = staleMarks(await listHeadMarks(database), await listHeadSources(database));
  const told = new Set((await listStaleHeads(database)).map((each) => markKey(each.conditionId, each.link)));
  const differ = [...quick, ...told].filter((key) => !quick.has(key) || !told.has(key));
  if (differ.length > 0) throw new Error(`stale by one way only: ${differ.join(', ')}`);
}
