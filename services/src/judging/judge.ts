import { findPrint, lockPrint } from '@melto/store/prints';
import { findReading, listModesRead } from '@melto/store/readings';
import type { ReadingRow } from '@melto/store/readings';
import { claimJob, latestJobOfReading } from '@melto/store/jobs';
import { randomUUID } from 'node:crypto';
import { judgeReached } from '../calibration/reached.ts';
import { loadAims } from '../conformity/aimSets.ts';
import { judgedByOf } from '../conformity/checkChoice.ts';
import { judgeReading } from '../conformity/checks.ts';
import { judgeCompleteCheck } from '../conformity/shortChecks.ts';
import { loadChart } from '../charts/chart.ts';
import type { Context } from '../kernel/context.ts';
import { workJob } from '../kernel/jobs.ts';
import type { JobHandler, JobHandlers } from '../kernel/jobs.ts';
import { JUDGE, judgedSoon } from '../reading/judgeRequest.ts';
import type { JudgeInput, Judging } from '../reading/judgeRequest.ts';
import { addWatchCheck } from '../watch/watch.ts';

/**
 * Judges what a complete reading says: calibration that its sheet went through, a check, a watch. All is stored with
 * the end of the job or not at all, so that a reading is judged once however often its runner ends.
 */
export const judgeJob: JobHandler = async (_, input) => async (inner) => {
  const { readingId } = input as JudgeInput;
  const reading = await findReading(inner.database, readingId);
  // It may have been withdrawn, or a strip of it taken anew, since it was asked for.
  if (reading === undefined || reading.finishedMs === null || reading.withdrawnMs !== null) return undefined;
  await lockPrint(inner.database, reading.printId);
  if (await readInItsMode(inner, reading)) return undefined;
  return (await judge(inner, readingId, reading.printId)) ?? undefined;
};

/**
 * Whether another reading of the same sheet is in the mode that counts, and this one in another: read once more without
 * ultraviolet, say, which tells of the paper and is no check. The aims' mode counts; where they tell none, the first.
 */
async function readInItsMode(
  inner: Context,
  { id, printId, mode }: Pick<ReadingRow, 'id' | 'printId' | 'mode'>,
): Promise<boolean> {
  const others = (await listModesRead(inner.database, printId)).filter((other) => other.id !== id);
  if (others.every((other) => other.mode === mode)) return false;
  const wanted = (await aimedMode(inner, printId)) ?? others[0].mode;
  return mode !== wanted && others.some((other) => other.mode === wanted);
}

/** Mode of the aims that a print is judged by; undefined where it is for none, or they do not tell. */
async function aimedMode(inner: Context, printId: number): Promise<ReadingRow['mode'] | undefined> {
  const print = await findPrint(inner.database, printId);
  const judgedBy = print === undefined ? undefined : judgedByOf({ print });
  if (judgedBy === undefined) return undefined;
  return (await loadAims(inner, judgedBy.aimSetId)).view.conditions.mode;
}

/** @returns the check that it led to. */
async function judge(inner: Context, readingId: number, printId: number): Promise<number | null> {
  const print = await findPrint(inner.database, printId);
  if (print === undefined) throw new Error(`print ${printId} is gone`);
  const { purpose, kind } = await loadChart(inner, print.chartId);
  await judgeReached(inner, print.conditionId, purpose, readingId);
  if (purpose === 'short-check') return judgeCompleteCheck(inner, readingId);
  if (purpose !== 'wedge') return null;
  // A watch is judged by its zero reading; its aims only tell how its wedge is converted.
  if (kind === 'watch') {
    await addWatchCheck(inner, readingId);
    return null;
  }
  return print.judgedBy === null ? null : (await judgeReading(inner, readingId)).id;
}

/** The quick jobs, which a reader waits for. */
export const QUICK_HANDLERS: JobHandlers = new Map([[JUDGE, judgeJob]]);

const LEASE_MS = 60_000;
const MOST_WAIT_MS = 60_000;

/** Judges a reading here and now where no runner has begun to; to be asked outside any unit of work. */
export async function judgeNow(context: Context, readingId: number): Promise<Judging> {
  const waiting = await latestJobOfReading(context.database, JUDGE, readingId);
  if (waiting?.state === 'queued') {
    const claimed = await claimJob(context.database, randomUUID(), context.now(), LEASE_MS, {
      id: waiting.id,
    });
    if (claimed !== undefined) await workJob(context, QUICK_HANDLERS, claimed, () => {});
  }
  return judgedSoon(context, readingId, MOST_WAIT_MS);
}
