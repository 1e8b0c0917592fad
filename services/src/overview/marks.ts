import { checkIsPast } from '@melto/core/conformity/checkValidity';
import { markOf } from '@melto/core/judgement/mark';
import type { Mark } from '@melto/core/judgement/mark';
import { isVerdict } from '@melto/core/judgement/verdict';
import type { Verdict } from '@melto/core/judgement/verdict';
import type { WatchStateRow } from '@melto/store/watches';
import type { LinkName } from '../ledger/links.ts';

/** A link with its one mark. */
export interface LinkMark {
  readonly link: LinkName;
  readonly state: Mark;
}

/** What is known of a link that has a result in force. */
export interface LinkStanding {
  readonly link: LinkName;
  readonly resultId: number;
  /** Verdict that was stored with it, and what a fresh sheet said of it since. */
  readonly stored: string | null;
  readonly reached: string | undefined;
  readonly stale: boolean;
  readonly madeMs: number;
  readonly validDays: number | null;
}

const verdictIn = (text: string | null | undefined): Verdict | null => (isVerdict(text) ? text : null);

/**
 * The mark of a link; a watch is marked by where it stands, and is due until it has been checked. A check that was not
 * judged is no current one, and is due once it is past its days.
 */
export function linkMark(
  { link, resultId, stored, reached, stale, madeMs, validDays }: LinkStanding,
  watch: WatchStateRow | undefined,
  nowMs: number,
): Mark {
  if (link === 'conformity') {
    const verdict = verdictIn(stored);
    const mark = markOf({ verdict, stale, due: checkIsPast({ madeMs, validDays }, watch?.expiresMs, nowMs) });
    return mark === 'current' && verdict === 'not-judged' ? verdict : mark;
  }
  if (link !== 'watch') return markOf({ verdict: verdictIn(reached ?? stored), stale });
  if (watch === undefined || watch.watchId !== resultId) return 'due';
  return markOf({
    verdict: verdictIn(watch.verdict),
    due: nowMs > watch.dueMs,
    stale,
    moved: watch.moved,
  });
}
