import type { Evenness } from '@melto/core/evenness/evenness';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import { latestReached } from '@melto/store/reached';
import { listHeads } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import type { BalanceDetail, BalanceSummary } from './balance.ts';
import { lendersFor } from './borrowing.ts';
import type { Lender } from './borrowing.ts';
import { totalInkAtInput } from '../charts/charts.ts';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf, driverOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow, SettingsPoint } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import type { CurvesDetail, CurvesSummary, InkRound } from './curves.ts';
import { curvesAmong, curvesInForce } from '../ledger/curvesInForce.ts';
import type { EvennessDetail, EvennessSummary } from './evenness.ts';
import { dmaxHistory } from './limits.ts';
import type { LimitsDetail, LimitsSummary } from './limits.ts';
import { LINK_WORDS } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import type { CurvesReached } from './reached.ts';
import { resultView, versionsOf } from '../ledger/versions.ts';
import type { VersionView } from '../ledger/versions.ts';
import { readingsOf } from '../reading/readings.ts';
import type { ReadingOfCondition } from '../reading/readings.ts';
import { notFound } from '../kernel/problem.ts';

/** Summary and detail of each calibration link, and what a fresh sheet says of it. */
export interface PressLinks {
  readonly evenness: {
    readonly summary: EvennessSummary;
    readonly detail: EvennessDetail;
    readonly reached: { readonly summary: EvennessSummary; readonly detail: Evenness };
  };
  readonly limits: {
    readonly summary: LimitsSummary;
    readonly detail: LimitsDetail;
    readonly reached: never;
  };
  readonly curves: {
    readonly summary: CurvesSummary;
    readonly detail: CurvesDetail;
    readonly reached: { readonly summary: CurvesReached; readonly detail: readonly InkRound[] };
  };
  readonly balance: {
    readonly summary: BalanceSummary;
    readonly detail: BalanceDetail;
    readonly reached: {
      readonly summary: Pick<BalanceSummary, 'figures' | 'limits' | 'extrapolated' | 'code'>;
      readonly detail: NeutralJudgement;
    };
  };
}

export type PressLink = keyof PressLinks;

/** A surface of a calibration link with all it shows. */
export interface PressView<L extends PressLink> {
  readonly link: L;
  readonly condition: ConditionRow;
  readonly points: readonly SettingsPoint[];
  readonly conversions: readonly string[];
  readonly versions: readonly VersionView[];
  readonly shown: VersionView | null;
  readonly result: {
    readonly row: ResultRow;
    readonly summary: PressLinks[L]['summary'];
    readonly detail: PressLinks[L]['detail'];
  } | null;
  readonly reached:
    (PressLinks[L]['reached'] & { readonly verdict: string; readonly readingId: number }) | null;
  /** Complete readings of the link's chart that stand, newest first. */
  readonly readings: readonly ReadingOfCondition[];
  /** The curves that a sheet is printed through. */
  readonly inForce: { readonly link: LinkName; readonly words: string } | null;
  /** Dmax of each ink over earlier readings, oldest first. */
  readonly dmax: Awaited<ReturnType<typeof dmaxHistory>>;
  readonly lenders: readonly Lender[];
  readonly nowMs: number;
}

/** The chart that each link is made from. */
const CHART_OF: Readonly<Record<PressLink, 'evenness' | 'ramps' | 'near-neutral'>> = {
  evenness: 'evenness',
  limits: 'ramps',
  curves: 'ramps',
  balance: 'near-neutral',
};

export async function pressView<L extends PressLink>(
  services: Services,
  conditionId: number,
  link: L,
  wanted?: number,
): Promise<PressView<L>> {
  const condition = await conditionOf(services, conditionId);
  if (condition.space !== 'cmyk') throw notFound(`${LINK_WORDS[link]} on ${condition.device}`);
  const [points, versions, readings, lenders, heads, nowMs] = await Promise.all([
    settingsRecord(services, conditionId),
    versionsOf(services, conditionId, link),
    readingsOf(services, conditionId),
    lendersFor(services, conditionId),
    listHeads(services.database, conditionId),
    domainNow(services),
  ]);
  const head = curvesAmong(heads);
  const shown = versions.find(({ id }) => id === wanted) ?? versions.find(({ inForce }) => inForce) ?? null;
  const result =
    shown === null
      ? null
      : await resultView<PressLinks[L]['summary'], PressLinks[L]['detail']>(services, shown.id, link);
  const told = shown === null ? undefined : await latestReached(services.database, shown.id, conditionId);
  const own = readings.filter(
    ({ purpose, withdrawnMs }) => purpose === CHART_OF[link] && withdrawnMs === null,
  );
  return {
    link,
    condition,
    points,
    conversions: driverOf(services, condition).conversions,
    versions,
    shown,
    result,
    reached:
      told === undefined
        ? null
        : ({
            summary: JSON.parse(told.summary) as unknown,
            detail: JSON.parse(told.detail) as unknown,
            verdict: told.verdict,
            readingId: told.readingId,
          } as unknown as PressView<L>['reached']),
    readings: own.filter(({ finishedMs }) => finishedMs !== null),
    inForce:
      head === undefined
        ? null
        : {
            link: head.link,
            words: `${LINK_WORDS[head.link]} v${head.version}${head.conditionId === conditionId ? '' : ', borrowed'}`,
          },
    dmax: link === 'limits' ? await dmaxHistory(services, conditionId) : [],
    lenders: heads.some((row) => row.link === 'curves' && row.conditionId === conditionId) ? [] : lenders,
    nowMs,
  };
}

/** What a press adds to its profile surface: the curves that charts are printed through, and its total ink. */
export interface PressForProfile {
  readonly curves: string | null;
  /** Total ink at the input of the curves, 1 = 100 %. */
  readonly totalInk: number;
}

export async function pressForProfile(services: Services, conditionId: number): Promise<PressForProfile> {
  const head = await curvesInForce(services.database, conditionId);
  return {
    curves:
      head === undefined
        ? null
        : `${LINK_WORDS[head.link]} v${head.version}${head.conditionId === conditionId ? '' : ', borrowed'}`,
    totalInk: await totalInkAtInput(services, conditionId),
  };
}
