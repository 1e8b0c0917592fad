import type { WatchStateRow } from '@melto/store/watches';
import { DAY_MS } from '../kernel/clock.ts';

/** What to do of a watch that is due. */
export function watchWords(
  { dueMs, expiresMs }: Pick<WatchStateRow, 'dueMs' | 'expiresMs'>,
  nowMs: number,
): string {
  const days = Math.floor((nowMs - dueMs) / DAY_MS);
  if (nowMs > expiresMs) return 'Do the watch check: the last one has expired';
  return days < 1 ? 'Do the watch check: due today' : `Do the watch check: overdue ${days} d`;
}

/** Time to the next check, short. */
export function watchFigureWords({ dueMs }: Pick<WatchStateRow, 'dueMs'>, nowMs: number): string {
  if (nowMs > dueMs) {
    const over = Math.floor((nowMs - dueMs) / DAY_MS);
    return over < 1 ? 'due today' : `overdue ${over} d`;
  }
  const days = Math.round((dueMs - nowMs) / DAY_MS);
  return days < 1 ? 'next within a day' : `next in ${days} d`;
}
