import type { ResultRow } from '@melto/store/results';
import { lockWatch } from '@melto/store/watches';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { putInForce } from '../ledger/versions.ts';
import { settleWatchById } from './settleWatch.ts';

/** Puts an earlier version of any link in force; where a watch is put there is where its condition's watch stands. */
export async function putVersionInForce(context: Context, id: number): Promise<ResultRow> {
  return unitOfWork(context, async (inner) => {
    // Whoever adds a check to this watch comes before or after; of another result the lock is of no harm.
    await lockWatch(inner.database, id);
    const row = await putInForce(inner, id);
    if (row.link === 'watch') await settleWatchById(inner.database, id, Infinity);
    return row;
  });
}
