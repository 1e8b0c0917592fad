import { describe, expect, it } from 'vitest';
import { CHECK_VALID_MS, checkIsPast } from './checkValidity.ts';

describe('a check', () => {
  it('holds to its last millisecond, and no longer', () => {
    expect(checkIsPast(1000, undefined, 1000 + CHECK_VALID_MS)).toBe(false);
    expect(checkIsPast(1000, undefined, 1001 + CHECK_VALID_MS)).toBe(true);
  });

  it('is held by a watch until that expires', () => {
    const now = 2 * CHECK_VALID_MS;
    expect(checkIsPast(0, now, now)).toBe(false);
    expect(checkIsPast(0, now - 1, now)).toBe(true);
    // A watch that has expired takes nothing from a fresh check.
    expect(checkIsPast(now - 5, now - 1, now)).toBe(false);
  });
});
