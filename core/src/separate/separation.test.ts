import { describe, expect, it } from 'vitest';
import { separationFrom, separationOf, separationWords } from './separation.ts';

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
