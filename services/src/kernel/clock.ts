import { readSetting, writeSetting } from '@melto/store/settings';
import type { Services } from './context.ts';
import { Problem } from './problem.ts';

const OFFSET = 'clock-offset-ms';
export const DAY_MS = 86_400_000;
const YEAR_MS = 366 * DAY_MS;

/** Milliseconds by which domain time runs ahead of real time. */
export async function clockOffset(services: Services): Promise<number> {
  return Number((await readSetting(services.database, OFFSET)) ?? 0);
}

/** Domain time: what rest, tile age and drift go by. */
export async function domainNow(services: Services): Promise<number> {
  return services.now() + (await clockOffset(services));
}

/** Moves the simulated clock forward. */
export async function advanceClock(services: Services, byMs: number): Promise<number> {
  if (!Number.isFinite(byMs) || byMs <= 0 || byMs > YEAR_MS)
    throw new Problem(
      'bad-input',
      'The clock can only be moved forward, by a year at most.',
      'Give a number of milliseconds.',
      'byMs',
    );
  return services.database.transaction(async (sql) => {
    const offset = Number((await readSetting(sql, OFFSET)) ?? 0) + byMs;
    await writeSetting(sql, OFFSET, String(offset));
    return offset;
  });
}
