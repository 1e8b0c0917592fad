const DAY_MS = 86_400_000;

/** A check holds for this long where nothing watches its condition. */
export const CHECK_VALID_MS = 30 * DAY_MS;

/**
 * Whether a conforming check says nothing of today any more: it is past its days, and no watch that is kept up holds it.
 * @param expiresMs when the watch of its condition expires; undefined where there is none.
 */
export function checkIsPast(madeMs: number, expiresMs: number | undefined, nowMs: number): boolean {
  return nowMs > madeMs + CHECK_VALID_MS && !(expiresMs !== undefined && nowMs <= expiresMs);
}
