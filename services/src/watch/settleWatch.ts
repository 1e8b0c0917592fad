import { verdictOf, worstVerdict } from '@melto/core/judgement/verdict';
import { BASELINE_CHECKS } from '@melto/core/watch/controlChart';
import { causeSentence } from '@melto/core/watch/causeWords';
import { watchCause } from '@melto/core/watch/watchCause';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { watchDifferences } from '@melto/core/watch/watchDifferences';
import type { Sql } from '@melto/store/database';
import { findHead, findResult } from '@melto/store/results';
import {
  keepWatchJudgement,
  listWatchChecks,
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
 * new check, a strip that was read again, a reading that was withdrawn or taken back. The watch is locked already.
 */
export async function settleWatch(sql: Sql, watch: WatchToSettle, fromMs: number): Promise<void> {
  const { id: watchId, conditionId, detail } = watch;
  const checks = await checksOf(sql, watchId);
  const figures = checks.map((check) => check.figures);
  const { alarms } = watchCharts(figures);
  const judged = checks.map((check, index) =>
    check.madeMs < fromMs ? check : { ...check, ...judge(figures, index, alarms.includes(index), detail) },
  );
  for (const [index, check] of judged.entries())
    if (differs(check, checks[index])) await keepWatchJudgement(sql, check);
  const head = await findHead(sql, conditionId, 'watch');
  if (head?.id !== watchId) return;
  const last = judged.at(-1);
  if (last === undefined) return removeWatchState(sql, conditionId);
  const { madeMs, verdict, moved, cause } = last;
  await upsertWatchState(sql, {
    ...{ conditionId, watchId, verdict, moved, cause },
    dueMs: madeMs + detail.everyDays * DAY_MS,
    expiresMs: madeMs + detail.expiresDays * DAY_MS,
    lastMs: madeMs,
    spark: judged.slice(-SPARK).map(({ meanDeltaE }) => meanDeltaE),
  });
}

type Judgement = Pick<WatchCheckRow, 'meanDeltaE' | 'largestDeltaE' | 'verdict' | 'moved' | 'cause'>;

/** One check against the zero reading and the checks before it. */
function judge(
  figures: readonly Float64Array[],
  index: number,
  moved: boolean,
  detail: WatchDetail,
): Judgement {
  const differences = watchDifferences(figures[index], Float64Array.from(detail.zero));
  const cause = moved ? watchCause(figures.slice(0, index + 1), BASELINE_CHECKS) : undefined;
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
