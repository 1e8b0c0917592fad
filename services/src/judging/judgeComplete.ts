import type { Services } from '../kernel/context.ts';
import { judgeReading } from '../conformity/checks.ts';
import { judgeReached } from '../calibration/reached.ts';
import type { LoadedReading } from '../reading/readings.ts';
import { judgeCompleteCheck } from '../conformity/shortChecks.ts';
import { addWatchCheck } from '../watch/watch.ts';
import { isWatchWedge } from '../charts/wedgeTitles.ts';

/** Judges what a complete sheet says: calibration that it went through, a check, a watch. @returns the check's result. */
export async function judgeComplete(
  services: Services,
  { print, chart }: Pick<LoadedReading, 'print' | 'chart'>,
  readingId: number,
): Promise<number | null> {
  await judgeReached(services, print.conditionId, chart.purpose, readingId);
  if (chart.purpose === 'short-check') return judgeCompleteCheck(services, readingId);
  if (chart.purpose !== 'wedge') return null;
  if (!isWatchWedge(chart))
    return print.judgedBy === null ? null : (await judgeReading(services, readingId)).id;
  // A watch is judged by its zero reading; its aims only tell how its wedge is converted.
  await addWatchCheck(services, readingId);
  return null;
}
