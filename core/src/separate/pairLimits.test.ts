import { describe, expect, it } from 'vitest';
import { pairLimitsFrom, pairLimitsText } from './pairLimits.ts';

const NAMES = ['C', 'M', 'Y', 'K', 'LC'];

describe('limits of pairs', () => {
  it('are read as they are written, and written as they are read', () => {
    const limits = pairLimitsFrom(' C+M=180,LC + Y = 50 ', NAMES);
    expect(limits).toEqual([
      { inks: [0, 1], most: 1.8 },
      { inks: [4, 2], most: 0.5 },
    ]);
    expect(pairLimitsText(limits ?? [], NAMES)).toBe('C+M=180, LC+Y=50');
    expect(pairLimitsFrom('', NAMES)).toEqual([]);
    expect(pairLimitsFrom('C+M=200', NAMES)).toHaveLength(1);
  });

  it.each(['C+V=150', 'C+C=150', 'C+M=49', 'C+M=201', 'C+M', 'CM=150', 'C+M=150%'])(
    'are none as %s',
    (text) => {
      expect(pairLimitsFrom(text, NAMES)).toBeUndefined();
    },
  );
});
