import { findHouse } from '@melto/store/houses';
import { lockSetting, writeSetting } from '@melto/store/settings';
import { CLOCK_OFFSET, DAY_MS } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

const YEAR_MS = 366 * DAY_MS;

/** Moves the simulated clock forward; only a sample house has one. @returns how far it runs ahead, milliseconds. */
export async function advanceClock(context: Context, byMs: number): Promise<number> {
  if (!Number.isFinite(byMs) || byMs <= 0 || byMs > YEAR_MS)
    throw new Problem(
      'bad-input',
      'The clock can only be moved forward, by a year at most.',
      'Give a number of milliseconds.',
      'byMs',
    );
  return unitOfWork(context, async ({ database }) => {
    if ((await findHouse(database))?.sample !== true)
      throw new Problem(
        'conflict',
        'This house goes by the real time.',
        'Only the clock of a sample house can be moved.',
      );
    const offset = Number(await lockSetting(database, CLOCK_OFFSET, '0')) + byMs;
    await writeSetting(database, CLOCK_OFFSET, String(offset));
    return offset;
  });
}
