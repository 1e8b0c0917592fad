import type { Verdict } from './verdict.ts';

/** The one mark of a link: its verdict and its freshness together. */
export type Mark = Verdict | 'due' | 'stale' | 'current' | 'none';

/** Where a link stands: freshness and verdict are two things, of which one mark tells the more pressing. */
export interface Standing {
  /** What was judged last; null where nothing is to be judged. */
  readonly verdict: Verdict | null;
  readonly due?: boolean;
  readonly stale?: boolean;
  /** Something has moved within the limits: worth a look. */
  readonly moved?: boolean;
}

/** Does not conform comes before due, due before stale, stale before near, near before conforms and current. */
export function markOf({ verdict, due = false, stale = false, moved = false }: Standing): Mark {
  if (verdict === 'does-not-conform') return verdict;
  if (due) return 'due';
  if (stale) return 'stale';
  if (moved || verdict === 'near') return 'near';
  return verdict === 'conforms' ? verdict : 'current';
}
