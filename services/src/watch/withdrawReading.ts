import { findReading, setWithdrawn } from '@melto/store/readings';
import { listChecksOfReading, lockWatch } from '@melto/store/watches';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { settleWatchById } from './settleWatch.ts';

/**
 * Withdraws a reading, or takes it back; what watches say follows at once. Each watch is locked before anything is read,
 * so that whoever comes second sees what the first has done.
 */
export async function withdrawReading(context: Context, id: number, withdrawn: boolean): Promise<void> {
  if ((await findReading(context.database, id)) === undefined) throw notFound(`reading ${id}`);
  const atMs = withdrawn ? await domainNow(context) : null;
  await unitOfWork(context, async ({ database }) => {
    const checks = await listChecksOfReading(database, id);
    for (const { watchId } of checks) await lockWatch(database, watchId);
    await setWithdrawn(database, id, atMs);
    for (const { watchId, madeMs } of checks) await settleWatchById(database, watchId, madeMs);
  });
}
