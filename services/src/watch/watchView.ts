import { keptFigures } from '@melto/core/watch/watchFigures';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { listCompleteReadings } from '@melto/store/readings';
import { RUN_CHECK_SHEETS } from '@melto/core/press/runFigures';
import { listFinishedRuns } from '@melto/store/pressRuns';
import type { RunOfCondition } from '@melto/store/pressRuns';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import type { WatchSchedule } from '../ledger/kinds/watchKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import type { WatchCheckRow } from '@melto/store/watches';
import { findChartState, findWatchState, listWatchChecksBefore } from '@melto/store/watches';
import { listStaleHeads } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { Context } from '../kernel/context.ts';
import { staleSentence } from '../ledger/stale.ts';
import type { StaleSentence } from '../ledger/stale.ts';
import { checksOf } from './settleWatch.ts';

/** A watch as its surface shows it; the charts are computed from the figures where they are shown. */
export interface WatchView {
  readonly nowMs: number;
  readonly watch:
    | (WatchSchedule & {
        readonly id: number;
        readonly version: number;
        readonly madeMs: number;
        readonly zero: readonly (number | null)[];
        /** Its zero reading is made of runs. */
        readonly byRuns: boolean;
        readonly zeroReadings: number;
        readonly judgedBy: unknown;
      })
    | null;
  readonly checks: readonly (Omit<WatchCheckRow, 'figures'> & {
    readonly figures: readonly (number | null)[];
  })[];
  /** Where the charts stood before the first check after the baseline, where others lie between. */
  readonly chartsFrom: readonly number[] | null;
  readonly dueMs: number | null;
  readonly expiresMs: number | null;
  readonly stale: StaleSentence | null;
  /** Complete readings of the watch wedge that a zero reading could be made of, newest first. */
  readonly candidates: readonly { readonly id: number; readonly code: string; readonly finishedMs: number }[];
  /** Finished runs that one could be made of, newest first. */
  readonly runs: readonly RunOfCondition[];
}

/** Latest readings that a zero reading could be made of. */
const CANDIDATES = 60;

export async function watchView(context: Context, conditionId: number): Promise<WatchView> {
  await conditionOf(context, conditionId);
  const { database } = context;
  const [watch, state, stale, readings, runs, nowMs] = await Promise.all([
    storedHead(context, conditionId, WATCH),
    findWatchState(database, conditionId),
    listStaleHeads(database, conditionId),
    listCompleteReadings(database, conditionId, { purposes: ['wedge'], kind: 'watch', limit: CANDIDATES }),
    listFinishedRuns(database, conditionId, { sheets: RUN_CHECK_SHEETS, limit: CANDIDATES }),
    domainNow(context),
  ]);
  const checks = watch === undefined ? [] : await checksOf(database, watch.row.id);
  const chartsFrom = watch === undefined ? null : await stateBefore(context, watch.row.id, checks);
  const why = stale.find(({ link }) => link === 'watch');
  return {
    nowMs,
    watch:
      watch === undefined
        ? null
        : {
            id: watch.row.id,
            version: watch.row.version,
            madeMs: watch.row.madeMs,
            everyDays: watch.detail.everyDays,
            expiresDays: watch.detail.expiresDays,
            meanLimit: watch.detail.meanLimit,
            largestLimit: watch.detail.largestLimit,
            zero: watch.detail.zero,
            zeroReadings: watch.summary.readings,
            byRuns: watch.detail.runs !== undefined,
            judgedBy: watch.detail.judgedBy,
          },
    checks: checks.map(({ figures, ...check }) => ({
      ...check,
      figures: keptFigures(figures.map((value) => Math.round(value * 1e4) / 1e4)),
    })),
    chartsFrom,
    dueMs: state?.watchId === watch?.row.id ? (state?.dueMs ?? null) : null,
    expiresMs: state?.watchId === watch?.row.id ? (state?.expiresMs ?? null) : null,
    stale: why === undefined ? null : staleSentence(why),
    candidates: readings.map(({ id, code, finishedMs }) => ({ id, code, finishedMs: finishedMs ?? 0 })),
    runs,
  };
}

/** State of the charts after the last check that is left out between the baseline and the latest ones. */
async function stateBefore(
  { database }: Context,
  watchId: number,
  checks: readonly WatchCheckRow[],
): Promise<readonly number[] | null> {
  const first = checks.at(BASELINE_CHECKS);
  if (first === undefined) return null;
  const [before] = await listWatchChecksBefore(database, watchId, first.madeMs, 1);
  if (before === undefined || checks.some(({ id }) => id === before.id)) return null;
  const state = await findChartState(database, before.id);
  return state === null ? null : [...state];
}
