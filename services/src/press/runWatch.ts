import { RUN_CHECK_SHEETS, runFigures } from '@melto/core/press/runFigures';
import { meanFigures, ZERO_READINGS } from '@melto/core/watch/watchFigures';
import type { RunWithPlan } from '@melto/store/pressRuns';
import { listProductionColours } from '@melto/store/pressSheets';
import { findWatchState, isRunCheck, keepWatchCheck } from '@melto/store/watches';
import { issueText } from '@melto/core/result';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import type { WatchDetail, WatchedRuns, WatchSchedule } from '../ledger/kinds/watchKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { judgeNext, settleWatch } from '../watch/settleWatch.ts';
import type { Judgement } from '../watch/settleWatch.ts';
import { beginWatch } from '../watch/watch.ts';
import { runOf } from './runs.ts';

/** Sheets that a run is told by; of more, so many evenly among them. Fewer while somebody looks on. */
const MOST_SHEETS = 400;
const MOST_SHEETS_SEEN = 60;

/** What the watch of its condition says at the press. */
export interface RunWatch {
  /** Where the watch stands by its latest check. */
  readonly moved: boolean;
  readonly cause: string | null;
  /** What it would say of this run as far as it was read; null where the run is no check of it. */
  readonly own: Pick<Judgement, 'meanDeltaE' | 'largestDeltaE' | 'verdict' | 'moved' | 'cause'> | null;
  /** Why the run is no check of it. */
  readonly why: string | null;
}

type RunCheck =
  | { readonly figures: Float64Array; readonly madeMs: number }
  /** Why the run tells a watch nothing. */
  | { readonly why: string };

/** What a run tells a watch, by its sheets of production. */
async function checkOfRun({ database }: Context, run: RunWithPlan, most = MOST_SHEETS): Promise<RunCheck> {
  if (run.aimsAway) return { why: 'It was printed to an OK sheet whose solids were outside of its aims.' };
  if (run.curvesResultId === undefined) return { why: 'Which curves its plates had was not kept.' };
  const sheets = await listProductionColours(database, run.id, most);
  if (sheets.length < RUN_CHECK_SHEETS)
    return {
      why: `A run counts from ${RUN_CHECK_SHEETS} sheets of production on; it has ${sheets.length}.`,
    };
  const figures = runFigures(run.plan.bar, run.plan.units, sheets);
  if (!figures.ok) return { why: `Its bar does not do: ${figures.issues.map(issueText).join('; ')}.` };
  return { figures: figures.value, madeMs: Math.max(...sheets.map(({ readMs }) => readMs)) };
}

/** What sets a run apart from those of a zero reading; undefined where it was printed alike. */
function unlike(run: RunWithPlan, runs: Omit<WatchedRuns, 'ids'>): string | undefined {
  if (run.aimSetId !== runs.aimSetId) return 'It is printed to other aims';
  if (run.curvesResultId !== runs.curvesResultId) return 'Its plates have other curves';
  if (run.settings.mode !== runs.mode) return 'It is read in another mode';
  return undefined;
}

/** What a run tells this watch, or why it tells it nothing. */
async function checkFor(
  context: Context,
  run: RunWithPlan,
  detail: WatchDetail,
  most?: number,
): Promise<RunCheck> {
  if (detail.runs === undefined) return { why: 'It is kept with watch wedges.' };
  const other = unlike(run, detail.runs);
  return other === undefined
    ? checkOfRun(context, run, most)
    : { why: `${other} than the runs of the zero reading.` };
}

/** The watch of a run's condition, as it is said at the press; null without a watch. */
export async function watchAtThePress(context: Context, run: RunWithPlan): Promise<RunWatch | null> {
  const watch = await storedHead(context, run.conditionId, WATCH);
  if (watch === undefined) return null;
  const state = await findWatchState(context.database, run.conditionId);
  const moved = state?.moved === true || state?.verdict === 'does-not-conform';
  const cause = state?.cause ?? null;
  const { detail, row } = watch;
  if (run.phase === 'finished' && (await isRunCheck(context.database, row.id, run.id)))
    return { moved, cause, own: null, why: null };
  const check = await checkFor(context, run, detail, MOST_SHEETS_SEEN);
  if ('why' in check) return { moved, cause, own: null, why: check.why };
  if (run.phase === 'finished')
    return { moved, cause, own: null, why: 'It was finished before this watch was started.' };
  const toJudge = { id: row.id, conditionId: run.conditionId, detail };
  return { moved, cause, own: await judgeNext(context.database, toJudge, check.figures), why: null };
}

/** The watch that a run may be a check of; its row is to be locked before the run is. */
export async function watchOfRun(
  context: Context,
  conditionId: number,
): Promise<{ readonly id: number; readonly detail: WatchDetail } | undefined> {
  const watch = await storedHead(context, conditionId, WATCH);
  return watch?.detail.runs === undefined ? undefined : { id: watch.row.id, detail: watch.detail };
}

/** Enters a run into a watch, where it was printed alike; within a transaction that holds the watch. */
export async function enterRun(
  context: Context,
  run: RunWithPlan,
  { id, detail }: { readonly id: number; readonly detail: WatchDetail },
): Promise<void> {
  const check = await checkFor(context, run, detail);
  if ('why' in check) return;
  const { conditionId } = run;
  const stored = { conditionId, watchId: id, readingId: null, runId: run.id, ...check };
  const madeMs = await keepWatchCheck(context.database, stored);
  await settleWatch(context.database, { id, conditionId, detail }, madeMs);
}

/** Starts a watch by runs: its zero reading is the mean of at least three, all printed alike. */
export async function startRunWatch(
  context: Context,
  conditionId: number,
  schedule: WatchSchedule,
  runIds: readonly number[],
): Promise<{ readonly id: number }> {
  const { first, checks } = await zeroOfRuns(context, conditionId, runIds);
  const { aimSetId, curvesResultId = null, settings, jobNumber } = first;
  return beginWatch(context, conditionId, schedule, {
    ...{ readings: [], judgedBy: null, code: jobNumber, checks },
    runs: { ids: runIds, aimSetId, curvesResultId, mode: settings.mode },
    sources: curvesResultId === null ? [] : [curvesResultId],
  });
}

/** The figures of a zero reading, of the runs it is the mean of. */
export async function workRunZero(
  context: Context,
  conditionId: number,
  runIds: readonly number[],
): Promise<Float64Array> {
  const { checks } = await zeroOfRuns(context, conditionId, runIds);
  return meanFigures(checks.map(({ figures }) => figures));
}

async function zeroOfRuns(context: Context, conditionId: number, runIds: readonly number[]) {
  const refuse = (title: string, todo: string): Problem => new Problem('bad-input', title, todo, 'runIds');
  if (new Set(runIds).size < ZERO_READINGS)
    throw refuse(
      `A zero reading is the mean of at least ${ZERO_READINGS} runs.`,
      'Choose more runs, or print and read the watch wedge.',
    );
  await conditionOf(context, conditionId);
  const runs = await Promise.all(runIds.map((id) => runOf(context, id)));
  const [first] = runs;
  const checks = [];
  for (const run of runs) {
    const name = `Run ${run.jobNumber}`;
    if (run.conditionId !== conditionId || run.phase !== 'finished')
      throw refuse(`${name} is no finished run of this condition.`, 'Choose another.');
    const check = await checkOfRun(context, run);
    if ('why' in check) throw refuse(`${name}: ${check.why}`, 'Choose another.');
    const { aimSetId, curvesResultId = null, settings } = first;
    if (unlike(run, { aimSetId, curvesResultId, mode: settings.mode }) !== undefined)
      throw refuse(
        `${name} and run ${first.jobNumber} were not printed and read alike.`,
        'Take runs to the same aims, through the same curves, read in the same mode.',
      );
    checks.push({ readingId: null, runId: run.id, ...check });
  }
  return { first, checks };
}
