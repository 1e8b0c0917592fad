import type { ChartPurpose } from '@melto/store/charts';
import type { Services } from './context.ts';
import { judgeReading } from './checks.ts';
import { judgeReached } from './reached.ts';
import { judgeCompleteCheck } from './shortChecks.ts';
import { addWatchCheck } from './watch.ts';

/** Judges what a complete sheet says: calibration that it went through, a check, a watch. @returns the check's result. */
export async function judgeComplete(
  services: Services,
  { conditionId, purpose, judgedBy }: JudgedSheet,
  readingId: number,
): Promise<number | null> {
  await judgeReached(services, conditionId, purpose, readingId);
  if (purpose === 'short-check') return judgeCompleteCheck(services, readingId);
  if (purpose !== 'wedge') return null;
  // A watch is judged by its zero reading; its aims only tell how its wedge is converted.
  if (await addWatchCheck(services, readingId)) return null;
  return judgedBy === null ? null : (await judgeReading(services, readingId)).id;
}

export interface JudgedSheet {
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  readonly judgedBy: string | null;
}
