import { listHeads, listStaleHeads } from '@melto/store/results';
import type { LinkName } from '@melto/store/results';
import { domainNow } from './clock.ts';
import { conditionOf, settingsRecord } from './conditions.ts';
import type { ConditionRow } from './conditions.ts';
import type { Services } from './context.ts';
import { RGB_LINKS } from './floor.ts';
import type { MarkState } from './floor.ts';
import type { ProfileSummary } from './profiles.ts';
import type { CheckDetail, CheckSummary } from './shortChecks.ts';
import { resultView } from './profiles.ts';
import { sheetsOf } from './printing.ts';

/** A condition as its spine shows it: each link with a small picture of its own data. */
export interface ConditionView {
  readonly condition: ConditionRow;
  readonly nowMs: number;
  readonly links: readonly SpineLink[];
  readonly sheets: number;
  readonly points: number;
}

export interface SpineLink {
  readonly link: LinkName;
  readonly state: MarkState;
  readonly version: number | null;
  readonly madeMs: number | null;
  /** Profile: outline in a*b*. */
  readonly outline?: readonly (readonly [number, number])[];
  /** Conformity: ΔE00 of the check's patches and the limit of the largest. */
  readonly differences?: readonly number[];
  readonly limit?: number;
  readonly figures?: string;
}

export async function conditionView(services: Services, id: number): Promise<ConditionView> {
  const condition = await conditionOf(services, Number.isSafeInteger(id) ? id : 0);
  const [heads, stale, sheets, points, nowMs] = await Promise.all([
    listHeads(services.database, condition.id),
    listStaleHeads(services.database),
    sheetsOf(services, condition.id),
    settingsRecord(services, condition.id),
    domainNow(services),
  ]);
  const links = await Promise.all(
    RGB_LINKS.map(async (link): Promise<SpineLink> => {
      const head = heads.find((row) => row.link === link);
      if (head === undefined) return { link, state: 'none', version: null, madeMs: null };
      const isStale = stale.some((row) => row.conditionId === condition.id && row.link === link);
      const verdict = head.verdict as MarkState | null;
      const state: MarkState =
        verdict === 'does-not-conform' ? verdict : isStale ? 'stale' : (verdict ?? 'current');
      const base = { link, state, version: head.version, madeMs: head.madeMs };
      if (link === 'profile') {
        const summary = JSON.parse(head.summary) as ProfileSummary;
        return { ...base, outline: summary.outline, figures: `fit ${summary.mean.toFixed(2)}` };
      }
      const { detail, summary } = await resultView<CheckSummary, CheckDetail>(
        services,
        head.id,
        'conformity',
      );
      return {
        ...base,
        differences: detail.check.patches.map(({ reached }) => reached),
        limit: summary.largestLimit,
        figures: `${summary.mean.toFixed(2)} / ${summary.meanLimit.toFixed(1)}`,
      };
    }),
  );
  return { condition, nowMs, links, sheets: sheets.length, points: points.length };
}
