import { describe, expect, it } from 'vitest';
import { inkBounds, keepLimits, separationFrom, separationOf, separationWords } from './separation.ts';
import type { Separation } from './separation.ts';

describe('a separation that was chosen', () => {
  it('is the preset of its word, but for what differs', () => {
    expect(separationFrom({ black: 'heavy', totalInk: 3 })).toEqual({
      ...separationOf('heavy', 3),
      pureBlack: false,
    });
    const own = separationFrom({ black: 'heavy', totalInk: 2.4, blackMost: 0.7, inkLimits: [1, 0.9, 1, 1] });
    expect(own).toMatchObject({ totalInk: 2.4, blackMost: 0.7, inkLimits: [1, 0.9, 1, 1] });
    expect(own.blackStart).toBe(separationOf('heavy', 2.4).blackStart);
  });

  it('is told in words', () => {
    expect(separationWords({ black: 'medium', totalInk: 3 })).toBe(
      'black for all-round use; total ink 300 %',
    );
    expect(
      separationWords({
        ...{ black: 'light', totalInk: 2.806, blackStart: 40.4, blackMost: 0.95, pureBlack: true },
        inkLimits: [1, 0.9, 1, 0.85],
      }),
    ).toBe(
      'black for smoothest lights, from L* 40, most 95 %; total ink 281 %; most M 90 %; most K 85 %; greys of the saturation intent in black alone',
    );
  });
});

describe('limits', () => {
  const kept = (inks: number[], limits: Partial<Separation>): number[] => {
    const own = { ...separationOf('medium', 3, inks.length), ...limits };
    const out = Float64Array.from(inks);
    keepLimits(out, 0, inkBounds(own), own);
    return [...out];
  };

  it('of pairs are kept by both inks alike, and by the other one beside black', () => {
    const pairLimits = [{ inks: [0, 1], most: 1.5 }] as const;
    expect(kept([0.9, 0.6, 0, 0], { pairLimits })).toEqual([0.9, 0.6, 0, 0]);
    const over = kept([0.9, 0.61, 0, 0], { pairLimits });
    expect(over[0] + over[1]).toBeCloseTo(1.5, 12);
    expect(over[0] / over[1]).toBeCloseTo(0.9 / 0.61, 12);
    expect(kept([0.9, 0, 0, 0.8], { pairLimits: [{ inks: [0, 3], most: 1.5 }] })).toEqual([0.7, 0, 0, 0.8]);
    expect(kept([0.9, 0, 0, 0.8], { pairLimits: [{ inks: [3, 0], most: 1.5 }] })).toEqual([0.7, 0, 0, 0.8]);
  });

  it('of the sum leave black alone, whichever channel it is', () => {
    const extra = { base: [1, 2, 3], black: 0, inks: [], replace: 0 } as const;
    const out = kept([1, 0.8, 0.8, 0.8, 0.8], { totalInk: 2.6, extra });
    expect(out[0]).toBe(1);
    expect(out.reduce((sum, value) => sum + value, 0)).toBeCloseTo(2.6, 12);
    expect(kept([0.9, 0.5, 0.5, 0.5, 0.2], { totalInk: 2.6, extra })).toEqual([0.9, 0.5, 0.5, 0.5, 0.2]);
  });

  it('bound black by its own most as well', () => {
    expect(inkBounds({ ...separationOf('light', 3, 5), inkLimits: [1, 0.9, 1, 0.95, 0.8] })).toEqual([
      ...[1, 0.9, 1, 0.9, 0.8],
    ]);
  });
});
