import { CHECK_VALID_DAYS, checkIsPast } from '@melto/core/conformity/checkValidity';
import { listHeads, listStaleHeads } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import { findWatchState } from '@melto/store/watches';
import type { WatchStateRow } from '@melto/store/watches';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { linkWord } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';

export interface Standing {
  readonly conditionId: number;
  /** What a front end should do with a job: let it go, mark it, or stop it. */
  readonly standing: 'go' | 'mark' | 'stop';
  /** Why it is not *go*, in words. */
  readonly reasons: readonly string[];
  readonly conformity: {
    readonly verdict: string;
    readonly madeMs: number;
    readonly resultId: number;
  } | null;
  readonly watch: {
    readonly verdict: string;
    readonly moved: boolean;
    readonly cause: string | null;
    readonly lastMs: number | null;
    readonly dueMs: number;
    readonly expiresMs: number;
  } | null;
  readonly nowMs: number;
}

/** How a condition stands, for front ends: whether jobs may be printed on it. */
export async function standingOf(context: Context, conditionId: number): Promise<Standing> {
  await conditionOf(context, conditionId);
  const { database } = context;
  const [heads, stale, state, nowMs] = await Promise.all([
    listHeads(database, conditionId),
    listStaleHeads(database, conditionId),
    findWatchState(database, conditionId),
    domainNow(context),
  ]);
  const check = heads.find(({ link }) => link === 'conformity');
  const watched = heads.find(({ link }) => link === 'watch');
  const watch = state !== undefined && state.watchId === watched?.id ? state : undefined;
  const links = new Set(stale.map((row) => row.link));
  const { stop, mark } = standingReasons({ check, watch, stale: [...links], nowMs });
  return {
    conditionId,
    standing: stop.length > 0 ? 'stop' : mark.length > 0 ? 'mark' : 'go',
    reasons: [...stop, ...mark],
    conformity:
      check === undefined
        ? null
        : { verdict: check.verdict ?? 'not-judged', madeMs: check.madeMs, resultId: check.id },
    watch:
      watch === undefined
        ? null
        : {
            verdict: watch.verdict,
            moved: watch.moved,
            cause: watch.cause,
            lastMs: watch.lastMs,
            dueMs: watch.dueMs,
            expiresMs: watch.expiresMs,
          },
    nowMs,
  };
}

/** What a condition's last check, its watch and what is stale say of jobs. */
export interface StandingFacts {
  readonly check: Pick<HeadRow, 'verdict' | 'madeMs' | 'validDays'> | undefined;
  readonly watch: WatchStateRow | undefined;
  readonly stale: readonly LinkName[];
  readonly nowMs: number;
}

/** Why a job is stopped, and why it is marked, in words. */
export function standingReasons({ check, watch, stale, nowMs }: StandingFacts): {
  readonly stop: readonly string[];
  readonly mark: readonly string[];
} {
  const stop: string[] = [];
  const mark: string[] = [];
  if (check?.verdict === 'does-not-conform') stop.push('The last conformity check does not conform.');
  if (check?.verdict === 'near') mark.push('The last conformity check is near a limit.');
  if (check?.verdict === 'not-judged') mark.push('The last conformity check was not judged.');
  if (check === undefined) mark.push('There is no conformity check.');
  else if (checkIsPast(check, watch?.expiresMs, nowMs))
    mark.push(`The last conformity check is over ${check.validDays ?? CHECK_VALID_DAYS} days old.`);
  if (watch?.verdict === 'does-not-conform') stop.push('The last watch check is over its limit.');
  if (watch !== undefined && nowMs > watch.expiresMs) stop.push('The last watch check has expired.');
  else if (watch !== undefined && nowMs > watch.dueMs) mark.push('A watch check is due.');
  if (watch?.moved === true) mark.push(watch.cause ?? 'Something has moved.');
  for (const link of stale) mark.push(`${linkWord(link)} is stale.`);
  return { stop, mark };
}
