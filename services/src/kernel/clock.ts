import { readSetting } from '@melto/store/settings';
import type { Context } from './context.ts';

/** Name of the setting that holds how far domain time runs ahead; only the simulated clock changes it. */
export const CLOCK_OFFSET = 'clock-offset-ms';
export const DAY_MS = 86_400_000;

/** Milliseconds by which domain time runs ahead of real time. */
export async function clockOffset(context: Context): Promise<number> {
  return Number((await readSetting(context.database, CLOCK_OFFSET)) ?? 0);
}

/** Domain time: what rest, tile age and drift go by. */
export async function domainNow(context: Context): Promise<number> {
  return context.now() + (await clockOffset(context));
}
