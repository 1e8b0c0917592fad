const DAY_MS = 86_400_000;

/** A check holds for so many days where nothing else was said and nothing watches its condition. */
export const CHECK_VALID_DAYS = 30;

/** A check, and after how many days it is due again; null where that was not said. */
export interface DatedCheck {
  readonly madeMs: number;
  readonly validDays: number | null;
}

/** When a check is past its days. */
export const checkEndsMs = ({ madeMs, validDays }: DatedCheck): number =>
  madeMs + (validDays ?? CHECK_VALID_DAYS) * DAY_MS;

/**
 * Whether a conforming check says nothing of today any more: it is past its days, and no watch that is kept up holds it.
 * One whose days were said is held by none.
 * @param expiresMs when the watch of its condition expires; undefined where there is none.
 */
export function checkIsPast(check: DatedCheck, expiresMs: number | undefined, nowMs: number): boolean {
  if (nowMs <= checkEndsMs(check)) return false;
  return check.validDays !== null || expiresMs === undefined || nowMs > expiresMs;
}
