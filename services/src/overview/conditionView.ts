import { latestReached, listReachedHeads } from '@melto/store/reached';
import { findResult, listHeads, listStaleHeads } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import type { BalanceDetail, BalanceSummary } from '../calibration/balance.ts';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import type { CurvesDetail, CurvesSummary } from '../calibration/curves.ts';
import { markOf } from './floor.ts';
import type { MarkState } from './floor.ts';
import type { LimitsDetail, LimitsSummary } from '../calibration/limits.ts';
import { linksOf } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import { sheetsOf } from '../charts/printing.ts';
import type { ProfileSummary } from '../profile/profiles.ts';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { findWatchState } from '@melto/store/watches';
import type { WatchStateRow } from '@melto/store/watches';
import { checkFigures } from '../conformity/checkFigures.ts';
import type { CheckDetail as ShortCheckDetail } from '../conformity/shortChecks.ts';
import { watchFigureWords, watchMark } from './watchStanding.ts';
import type { WatchSummary } from '../watch/watch.ts';

/** A condition as its spine shows it: each link with a small picture of its own data. */
export interface ConditionView {
  readonly condition: ConditionRow;
  readonly nowMs: number;
  readonly links: readonly SpineLink[];
  /** Evenness across the width, for devices with inks. */
  readonly evenness: { readonly version: number | null } | null;
  readonly sheets: number;
  readonly points: number;
}

/** What a link's small picture is drawn from. */
export type SpinePicture =
  | { readonly kind: 'bars'; readonly limits: readonly number[]; readonly colours: readonly string[] }
  | {
      readonly kind: 'curves';
      readonly curves: readonly (readonly number[])[];
      readonly colours: readonly string[];
    }
  | { readonly kind: 'track'; readonly greys: readonly (readonly [number, number])[] }
  | { readonly kind: 'outline'; readonly points: readonly (readonly [number, number])[] }
  | { readonly kind: 'dots'; readonly differences: readonly number[]; readonly limit: number }
  | { readonly kind: 'spark'; readonly values: readonly number[]; readonly limit: number };

export interface SpineLink {
  readonly link: LinkName;
  readonly state: MarkState;
  readonly version: number | null;
  readonly madeMs: number | null;
  readonly borrowed: boolean;
  readonly picture?: SpinePicture;
  readonly figures?: string;
  /** In place of the word of the state. */
  readonly word?: string;
}

export async function conditionView(services: Services, id: number): Promise<ConditionView> {
  const condition = await conditionOf(services, Number.isSafeInteger(id) ? id : 0);
  const [heads, stale, reached, sheets, points, watch, nowMs] = await Promise.all([
    listHeads(services.database, condition.id),
    listStaleHeads(services.database, condition.id),
    listReachedHeads(services.database, condition.id),
    sheetsOf(services, condition.id),
    settingsRecord(services, condition.id),
    findWatchState(services.database, condition.id),
    domainNow(services),
  ]);
  const links = await Promise.all(
    linksOf(condition.space).map(async (link): Promise<SpineLink> => {
      const head = heads.find((row) => row.link === link);
      if (head === undefined) return { link, state: 'none', version: null, madeMs: null, borrowed: false };
      const verdict = markOf(reached.find((row) => row.link === link)?.verdict ?? head.verdict);
      const isStale = stale.some((row) => row.link === link);
      return {
        link,
        state:
          link === 'watch'
            ? watchMark(watch, head.id, isStale, nowMs)
            : verdict === 'does-not-conform'
              ? verdict
              : isStale
                ? 'stale'
                : (verdict ?? 'current'),
        version: head.version,
        madeMs: head.madeMs,
        borrowed: head.conditionId !== condition.id,
        word: link === 'watch' && watch?.moved === true ? 'moved' : undefined,
        ...(await pictureOf(services, head, watch, nowMs)),
      };
    }),
  );
  const even = heads.find(({ link }) => link === 'evenness');
  return {
    condition,
    nowMs,
    links,
    evenness: condition.space === 'rgb' ? null : { version: even?.version ?? null },
    sheets: sheets.length,
    points: points.length,
  };
}

/** Every sixteenth point is enough for a picture of 64 pixels. */
const CURVE_STEP = 16;

async function pictureOf(
  services: Services,
  head: HeadRow,
  watch: WatchStateRow | undefined,
  nowMs: number,
): Promise<Pick<SpineLink, 'picture' | 'figures'>> {
  if (head.link === 'profile') {
    const { outline, mean } = JSON.parse(head.summary) as ProfileSummary;
    return { picture: { kind: 'outline', points: outline }, figures: `fit ${mean.toFixed(2)}` };
  }
  if (head.link === 'watch') {
    if (watch === undefined || watch.watchId !== head.id) return {};
    const { meanLimit } = JSON.parse(head.summary) as WatchSummary;
    return {
      picture: { kind: 'spark', values: watch.spark, limit: meanLimit },
      figures: watchFigureWords(watch, nowMs),
    };
  }
  const row = await findResult(services.database, head.id);
  if (row === undefined) return {};
  const detail = JSON.parse(row.detail) as unknown;
  switch (head.link) {
    case 'limits': {
      const { limits, total } = JSON.parse(head.summary) as LimitsSummary;
      const { colours } = detail as LimitsDetail;
      return { picture: { kind: 'bars', limits, colours }, figures: `${(100 * total).toFixed(0)} % in all` };
    }
    case 'curves': {
      const { curves, colours } = detail as CurvesDetail;
      const { round, imported } = JSON.parse(head.summary) as CurvesSummary;
      const thinned = curves.map((curve) => curve.filter((_, i) => i % CURVE_STEP === 0));
      return {
        picture: { kind: 'curves', curves: thinned, colours },
        figures: imported === null ? `round ${round}` : 'from a file',
      };
    }
    case 'balance': {
      const told = await latestReached(services.database, head.id, head.headConditionId);
      const judgement =
        told === undefined
          ? (detail as BalanceDetail).judgement
          : (JSON.parse(told.detail) as BalanceDetail['judgement']);
      const { round } = JSON.parse(head.summary) as BalanceSummary;
      return {
        picture: {
          kind: 'track',
          greys: judgement.cmy.map(({ lab, aim }) => [lab[1] - aim[1], lab[2] - aim[2]]),
        },
        figures: `round ${round}`,
      };
    }
    case 'conformity': {
      const { value, limit, dots } = checkFigures(head.summary);
      const differences =
        'kind' in (detail as object)
          ? (detail as CheckDetail).patches.map(({ deltaE }) => deltaE)
          : (detail as ShortCheckDetail).check.patches.map(({ reached }) => reached);
      return {
        picture: { kind: 'dots', differences, limit: dots },
        figures: `${value.toFixed(2)} / ${limit.toFixed(1)}`,
      };
    }
    case 'evenness':
      return {};
  }
}
