import { describe, expect, it } from 'vitest';
import { CHECK_VALID_DAYS, checkEndsMs, checkIsPast } from './checkValidity.ts';

const DAY = 86_400_000;

describe('a check', () => {
  const usual = { madeMs: 5, validDays: null };
  const weekly = { madeMs: 5, validDays: 7 };
  const over = 5 + CHECK_VALID_DAYS * DAY;

  it('holds for its days and no longer, the usual ones or those that were said', () => {
    expect(CHECK_VALID_DAYS).toBe(30);
    expect(checkIsPast(usual, undefined, over)).toBe(false);
    expect(checkIsPast(usual, undefined, over + 1)).toBe(true);
    expect(checkIsPast(weekly, undefined, 5 + 7 * DAY)).toBe(false);
    expect(checkIsPast(weekly, undefined, 6 + 7 * DAY)).toBe(true);
    expect([usual, weekly].map(checkEndsMs)).toEqual([over, 5 + 7 * DAY]);
  });

  it('is held by a watch until that expires, unless its own days were said', () => {
    expect(checkIsPast(usual, over + 10, over + 10)).toBe(false);
    expect(checkIsPast(usual, over + 10, over + 11)).toBe(true);
    // A watch that expired before takes no days from it.
    expect(checkIsPast(usual, 10, over)).toBe(false);
    expect(checkIsPast(weekly, over + 10, 6 + 7 * DAY)).toBe(true);
  });
});
