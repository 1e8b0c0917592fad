import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { spotsOverTime } from './spotsOverTime.ts';
import type { SpotCheck } from './spotsOverTime.ts';

const AIMS: Readonly<Record<string, Lab>> = { 'Seed red': [48, 60, 40], 'Leaf green': [50, -50, 30] };

/** A check of both colours, so far from their aims in L*. */
const check = (madeMs: number, off: Readonly<Record<string, number>>, aims = AIMS): SpotCheck => ({
  madeMs,
  patches: [
    { name: 'paper', device: [0, 0, 0, 0], uncorrected: [95, 0, 0], measured: [94, 0, 0], deltaE: 0.6 },
    ...Object.entries(off).map(([name, by]) => {
      const [l, a, b] = aims[name];
      const measured: Lab = [l + by, a, b];
      return {
        name,
        device: [],
        uncorrected: aims[name],
        measured,
        deltaE: deltaE2000(aims[name], measured),
      };
    }),
  ],
});

describe('spot colours over time', () => {
  it('are told from the oldest check on, what has moved most first, whatever order they lie in', () => {
    const found = spotsOverTime([
      check(30, { 'Leaf green': 1, 'Seed red': 3 }),
      check(20, { 'Seed red': 1, 'Leaf green': 1 }),
      check(10, { 'Seed red': 1, 'Leaf green': 1.5 }),
    ]);
    expect(found?.madeMs).toEqual([10, 20, 30]);
    expect(found?.colours.map(({ name }) => name)).toEqual(['Seed red', 'Leaf green']);
    const [red] = found?.colours ?? [];
    expect(red?.deltaE).toHaveLength(3);
    expect(red?.deltaE[0]).toBe(red?.deltaE[1]);
    expect(red?.deltaE[2]).toBeGreaterThan(2);
    // As far as it went, and not as far as it is from its aim.
    expect(red?.moved).toBeCloseTo(deltaE2000([49, 60, 40], [51, 60, 40]), 9);
  });

  it('leave out checks of other colours, of other aims, and of none', () => {
    const others = { ...AIMS, 'Seed red': [48, 60, 41] as Lab };
    const found = spotsOverTime([
      check(50, { 'Seed red': 1, 'Leaf green': 1 }),
      check(40, { 'Seed red': 1 }),
      check(30, { 'Seed red': 1, 'Leaf green': 1 }, others),
      check(20, {}),
      check(10, { 'Seed red': 2, 'Leaf green': 1 }),
    ]);
    expect(found?.madeMs).toEqual([10, 50]);
  });

  it('are not told of one check, of none, or where the newest has no spot colours', () => {
    const own = check(2, { 'Seed red': 1 });
    expect(spotsOverTime([])).toBeUndefined();
    expect(spotsOverTime([own])).toBeUndefined();
    expect(spotsOverTime([own, check(1, { 'Leaf green': 1 })])).toBeUndefined();
    expect(spotsOverTime([check(3, {}), own, check(1, { 'Seed red': 1 })])).toBeUndefined();
    expect(spotsOverTime([own, check(1, { 'Seed red': 1 })])).toBeDefined();
  });
});
