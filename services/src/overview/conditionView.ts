import type { Mark } from '@melto/core/judgement/mark';
import { countSheets } from '@melto/store/prints';
import { latestReached, listReachedHeads } from '@melto/store/reached';
import { findResult, listHeads, listStaleHeads } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import { findWatchState } from '@melto/store/watches';
import type { WatchStateRow } from '@melto/store/watches';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { conditionOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import { LINKS, linksOf } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import { kindOf } from '../ledger/resultKinds.ts';
import { storedOf, summaryOf } from '../ledger/resultKind.ts';
import type { LinkPicture } from '../ledger/resultKind.ts';
import type { SpinePicture } from '../ledger/spinePicture.ts';
import { linkMark } from './marks.ts';
import { watchFigureWords } from './watchWords.ts';

export type { SpinePicture };

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

export interface SpineLink extends LinkPicture {
  readonly link: LinkName;
  readonly state: Mark;
  readonly version: number | null;
  readonly madeMs: number | null;
  readonly borrowed: boolean;
  /** In place of the word of the state. */
  readonly word?: string;
}

export async function conditionView(context: Context, id: number): Promise<ConditionView> {
  const condition = await conditionOf(context, id);
  const { database } = context;
  const [heads, stale, reached, sheets, points, watch, nowMs] = await Promise.all([
    listHeads(database, condition.id),
    listStaleHeads(database, condition.id),
    listReachedHeads(database, condition.id),
    countSheets(database, condition.id),
    settingsRecord(context, condition.id),
    findWatchState(database, condition.id),
    domainNow(context),
  ]);
  const links = await Promise.all(
    linksOf(condition.process).map(async (link): Promise<SpineLink> => {
      const head = heads.find((row) => row.link === link);
      if (head === undefined) return { link, state: 'none', version: null, madeMs: null, borrowed: false };
      const standing = {
        ...{ link, resultId: head.id, stored: head.verdict },
        reached: reached.find((row) => row.link === link)?.verdict,
        stale: stale.some((row) => row.link === link),
        ...{ madeMs: head.madeMs, validDays: head.validDays },
      };
      return {
        link,
        state: linkMark(standing, watch, nowMs),
        version: head.version,
        madeMs: head.madeMs,
        borrowed: head.conditionId !== condition.id,
        word: link === 'watch' && watch?.moved === true ? 'moved' : undefined,
        ...(await pictureOf(context, head, watch, nowMs)),
      };
    }),
  );
  const even = heads.find(({ link }) => link === 'evenness');
  return {
    condition,
    nowMs,
    links,
    evenness: LINKS.evenness.suits(condition.process) ? { version: even?.version ?? null } : null,
    sheets,
    points: points.length,
  };
}

async function pictureOf(
  { database }: Context,
  head: HeadRow,
  watch: WatchStateRow | undefined,
  nowMs: number,
): Promise<LinkPicture> {
  if (head.shape === WATCH.shape) {
    if (watch === undefined || watch.watchId !== head.id) return {};
    return {
      picture: { kind: 'spark', values: watch.spark, limit: summaryOf(WATCH, head).meanLimit },
      figures: watchFigureWords(watch, nowMs),
    };
  }
  const row = await findResult(database, head.id);
  if (row === undefined) return {};
  const kind = kindOf(row);
  const told = await latestReached(database, head.id, head.headConditionId);
  return kind.picture(
    storedOf(kind, row, row.detail),
    told === undefined
      ? undefined
      : {
          verdict: told.verdict,
          summary: JSON.parse(told.summary) as unknown,
          detail: JSON.parse(told.detail) as unknown,
        },
  );
}
