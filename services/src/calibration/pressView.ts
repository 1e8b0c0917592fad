import type { Evenness } from '@melto/core/evenness/evenness';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import { latestReached } from '@melto/store/reached';
import type { ChartPurpose } from '@melto/store/charts';
import { listCompleteReadings } from '@melto/store/readings';
import type { ReadingOfCondition } from '@melto/store/readings';
import { listHeads } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { conditionOf, driverOf } from '../ledger/conditions.ts';
import { printPoints } from '../ledger/deviceDuty.ts';
import type { ConditionRow, SettingsPoint } from '../ledger/conditions.ts';
import { chartStates } from '../charts/chartStates.ts';
import type { ChartState } from '../charts/chartStates.ts';
import { curvesAmong, curvesInForce, curvesTold } from '../ledger/inForce.ts';
import type { CurvesTold } from '../ledger/inForce.ts';
import { BALANCE } from '../ledger/kinds/balanceKind.ts';
import type { BalanceDetail, BalanceSummary } from '../ledger/kinds/balanceKind.ts';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import type { CurvesDetail, CurvesSummary, InkRound } from '../ledger/kinds/curvesKind.ts';
import { EVENNESS } from '../ledger/kinds/evennessKind.ts';
import type { EvennessDetail, EvennessSummary } from '../ledger/kinds/evennessKind.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import type { LimitsDetail, LimitsSummary } from '../ledger/kinds/limitsKind.ts';
import { LINKS, linkWord } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import type { ResultKind } from '../ledger/resultKind.ts';
import { storedResult } from '../ledger/storedResult.ts';
import { versionsOf } from '../ledger/versions.ts';
import type { VersionView } from '../ledger/versions.ts';
import { lendersFor } from './borrowing.ts';
import type { Lender } from './borrowing.ts';
import { dmaxHistory } from './limits.ts';
import type { CurvesReached } from './reached.ts';
import { totalInkAtInput } from './totalInk.ts';

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

const KINDS: { readonly [L in PressLink]: ResultKind<PressLinks[L]['summary'], PressLinks[L]['detail']> } = {
  evenness: EVENNESS,
  limits: LIMITS,
  curves: CURVES,
  balance: BALANCE,
};

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
    | (PressLinks[L]['reached'] & { readonly verdict: string; readonly readingId: number })
    | null;
  /** Complete readings of the link's chart that stand, newest first. */
  readonly readings: readonly ReadingOfCondition[];
  /** Charts that were made for it, newest first, with where each stands. */
  readonly charts: readonly ChartState[];
  /** The curves that a sheet is printed through. */
  readonly inForce: ({ readonly link: LinkName } & CurvesTold) | null;
  /** Dmax of each ink over earlier readings, oldest first. */
  readonly dmax: Awaited<ReturnType<typeof dmaxHistory>>;
  readonly lenders: readonly Lender[];
  readonly nowMs: number;
}

/** The chart that each link is made from. */
const CHART_OF = {
  evenness: 'evenness',
  limits: 'ramps',
  curves: 'ramps',
  balance: 'near-neutral',
} as const satisfies Readonly<Record<PressLink, ChartPurpose>>;
/** Latest charts that a surface lists. */
const CHARTS = 6;
/** Latest complete readings that a link can be made from. */
const READINGS = 40;

export async function pressView<L extends PressLink>(
  context: Context,
  conditionId: number,
  link: L,
  wanted?: number,
): Promise<PressView<L>> {
  const condition = await conditionOf(context, conditionId);
  if (!LINKS[link].suits(condition.process)) throw notFound(`${linkWord(link)} on ${condition.device}`);
  const [points, versions, readings, lenders, heads, charts, nowMs] = await Promise.all([
    printPoints(context, condition),
    versionsOf(context, conditionId, link),
    listCompleteReadings(context.database, conditionId, {
      purposes: [CHART_OF[link]],
      limit: READINGS,
    }),
    lendersFor(context, conditionId),
    listHeads(context.database, conditionId),
    chartStates(context, conditionId, CHART_OF[link], CHARTS),
    domainNow(context),
  ]);
  const head = curvesAmong(heads);
  const shown = versions.find(({ id }) => id === wanted) ?? versions.find(({ inForce }) => inForce) ?? null;
  const result = shown === null ? null : await storedResult(context, shown.id, KINDS[link]);
  const told = shown === null ? undefined : await latestReached(context.database, shown.id, conditionId);
  return {
    link,
    condition,
    points,
    charts,
    conversions: driverOf(context, condition).conversions,
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
    readings,
    inForce: head === undefined ? null : { link: head.link, ...curvesTold(head, conditionId) },
    dmax: link === 'limits' ? await dmaxHistory(context, conditionId) : [],
    lenders: heads.some((row) => row.link === 'curves' && row.conditionId === conditionId) ? [] : lenders,
    nowMs,
  };
}

/** What a press adds to its profile surface: the curves that charts are printed through, and its total ink. */
export interface PressForProfile {
  readonly curves: CurvesTold | null;
  /** Total ink at the input of the curves, 1 = 100 %. */
  readonly totalInk: number;
}

export async function pressForProfile(context: Context, conditionId: number): Promise<PressForProfile> {
  const head = await curvesInForce(context, conditionId);
  return {
    curves: head === undefined ? null : curvesTold(head, conditionId),
    totalInk: await totalInkAtInput(context, conditionId),
  };
}
