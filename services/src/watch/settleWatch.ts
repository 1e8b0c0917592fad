import { verdictOf, worstVerdict } from '@melto/core/judgement/verdict';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { causeSentence } from '@melto/core/watch/causeWords';
import { RECENT_CHECKS, watchCause } from '@melto/core/watch/watchCause';
import { baselinesOf, startOfSet, stepSet } from '@melto/core/series/seriesSet';
import { WATCH_LIMITS } from '@melto/core/watch/data/watchLimits';
import { WATCH_SERIES } from '@melto/core/watch/watchSeries';
import { figuresOfKept } from '@melto/core/watch/watchFigures';
import { watchDifferences } from '@melto/core/watch/watchDifferences';
import type { Sql } from '@melto/store/database';
import { findHead, findResult } from '@melto/store/results';
import {
  findChartState,
  keepChartState,
  keepWatchJudgement,
  listFirstWatchChecks,
  listWatchChecks,
  listWatchChecksBefore,
  listWatchChecksFrom,
  listWatchMeans,
  removeWatchState,
  upsertWatchState,
} from '@melto/store/watches';
import type { WatchCheckRow } from '@melto/store/watches';
import { DAY_MS } from '../kernel/clock.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import type { WatchDetail } from '../ledger/kinds/watchKind.ts';
import { storedOf } from '../ledger/resultKind.ts';

/** Checks that a watch's charts are made of beside its baseline: two years of daily checks. */
export const MOST_CHECKS = 800;
/** Checks in the spark line of lists. */
const SPARK = 24;

export interface WatchToSettle {
  readonly id: number;
  readonly conditionId: number;
  readonly detail: WatchDetail;
}

/** Checks of a watch whose readings stand, oldest first: its baseline, and the latest. */
export function checksOf(sql: Sql, watchId: number): Promise<WatchCheckRow[]> {
  return listWatchChecks(sql, watchId, BASELINE_CHECKS, MOST_CHECKS);
}

/**
 * Judges the checks of a watch from a time on, as all its readings stand now, and keeps where the watch stands: after a
 * new check, a strip that was read again, a reading that was withdrawn or taken back. A check is one step from the one
 * before it, whose charts were kept. The watch is locked already.
 */
export async function settleWatch(sql: Sql, watch: WatchToSettle, fromMs: number): Promise<void> {
  const { id: watchId, conditionId, detail } = watch;
  const last = (await judgeFrom(sql, watch, fromMs)) ?? (await judgeFrom(sql, watch, 0));
  const head = await findHead(sql, conditionId, 'watch');
  if (head?.id !== watchId) return;
  if (last === undefined || last === NOTHING) return removeWatchState(sql, conditionId);
  const { madeMs, verdict, moved, cause } = last;
  await upsertWatchState(sql, {
    ...{ conditionId, watchId, verdict, moved, cause },
    dueMs: madeMs + detail.everyDays * DAY_MS,
    expiresMs: madeMs + detail.expiresDays * DAY_MS,
    lastMs: madeMs,
    spark: await listWatchMeans(sql, watchId, SPARK),
  });
}

/** There is no check whose reading stands. */
const NOTHING = 'nothing';
/** Checks that are judged at a time. */
const PAGE = 200;

/**
 * Judges checks from a time on, each as one step from the one before.
 * @returns the latest check; undefined where it is not known how the charts stood before that time.
 */
async function judgeFrom(
  sql: Sql,
  { id, detail }: WatchToSettle,
  fromMs: number,
): Promise<WatchCheckRow | typeof NOTHING | undefined> {
  const first = await listFirstWatchChecks(sql, id, BASELINE_CHECKS);
  const inBaseline = new Set(first.map((check) => check.id));
  const baseline = first.map(({ figures }) => figures);
  const baselines = baselinesOf(WATCH_SERIES, baseline);
  const before = await listWatchChecksBefore(sql, id, fromMs, RECENT_CHECKS);
  let latest = before.at(-1);
  let state: Float64Array | null = startOfSet(WATCH_SERIES);
  if (latest !== undefined && !inBaseline.has(latest.id)) state = await findChartState(sql, latest.id);
  if (state === null) return undefined;
  let recent = before.filter((check) => !inBaseline.has(check.id)).map(({ figures }) => figures);
  let after: WatchCheckRow | undefined;
  for (;;) {
    const page: WatchCheckRow[] = await listWatchChecksFrom(sql, id, fromMs, after, PAGE);
    for (const check of page) {
      let moved = false;
      if (baselines !== undefined && !inBaseline.has(check.id)) {
        const step = stepSet(WATCH_SERIES, baselines, state, check.figures, WATCH_LIMITS);
        state = step.state;
        moved = step.alarm;
        recent = [...recent, check.figures].slice(-RECENT_CHECKS);
        await keepChartState(sql, check.id, state);
      }
      latest = { ...check, ...judge(check.figures, baseline, moved ? recent : [], detail) };
      if (differs(latest, check)) await keepWatchJudgement(sql, latest);
    }
    after = page.at(-1);
    if (page.length < PAGE) return latest ?? NOTHING;
  }
}

export type Judgement = Pick<WatchCheckRow, 'meanDeltaE' | 'largestDeltaE' | 'verdict' | 'moved' | 'cause'>;

/** What the watch would say of figures that are no check yet, as the next after those it has. */
export async function judgeNext(
  sql: Sql,
  { id, detail }: WatchToSettle,
  figures: Float64Array,
): Promise<Judgement> {
  const first = await listFirstWatchChecks(sql, id, BASELINE_CHECKS);
  const baseline = first.map((check) => check.figures);
  const baselines = baselinesOf(WATCH_SERIES, baseline);
  const before = await listWatchChecksBefore(sql, id, Infinity, RECENT_CHECKS - 1);
  const later = before.filter((check) => !first.some((own) => own.id === check.id));
  const last = later.at(-1);
  const state = last === undefined ? startOfSet(WATCH_SERIES) : await findChartState(sql, last.id);
  const moved =
    baselines !== undefined &&
    state !== null &&
    stepSet(WATCH_SERIES, baselines, state, figures, WATCH_LIMITS).alarm;
  return judge(figures, baseline, moved ? [...later.map((check) => check.figures), figures] : [], detail);
}

/** One check against the zero reading; where it has moved, the latest checks say by what. */
function judge(
  figures: Float64Array,
  baseline: readonly Float64Array[],
  recent: readonly Float64Array[],
  detail: WatchDetail,
): Judgement {
  const differences = watchDifferences(figures, figuresOfKept(detail.zero));
  const moved = recent.length > 0;
  const cause = moved ? watchCause([...baseline, ...recent], BASELINE_CHECKS) : undefined;
  return {
    meanDeltaE: differences.mean,
    largestDeltaE: differences.largest,
    verdict: worstVerdict([
      verdictOf(differences.mean, detail.meanLimit),
      verdictOf(differences.largest, detail.largestLimit),
    ]),
    moved,
    cause: cause === undefined ? null : causeSentence(cause),
  };
}

const JUDGED = ['meanDeltaE', 'largestDeltaE', 'verdict', 'moved', 'cause'] as const;

function differs(a: Judgement, b: Judgement): boolean {
  return JUDGED.some((field) => a[field] !== b[field]);
}

/** Settles a watch from a time on, from its stored detail; it is locked already. */
export async function settleWatchById(sql: Sql, watchId: number, fromMs: number): Promise<void> {
  const row = await findResult(sql, watchId);
  if (row === undefined) return;
  const { detail } = storedOf(WATCH, row, row.detail);
  await settleWatch(sql, { id: watchId, conditionId: row.conditionId, detail }, fromMs);
}
