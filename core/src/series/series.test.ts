import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { BASELINE_CHECKS, controlChart, START } from './controlChart.ts';
import { baselinesOf, startOfSet, stateOf, stepSet } from './seriesSet.ts';
import type { Series } from './seriesSet.ts';

const SET: readonly Series[] = [0, 1, 2].map((at) => ({
  leastSigma: 0.1 * (at + 1),
  value: (figures: Float64Array) => figures[at],
}));
const LIMITS = { individual: 3.5, ewma: 3, cusum: 5 };
/** Checks that scatter and begin to drift. */
const checks = (seed: number, count: number): Float64Array[] => {
  const random = createRandom(seed);
  return Array.from({ length: count }, (_, check) =>
    Float64Array.from(
      SET,
      (_, at) => 0.3 * random.normal() + (at === 1 ? Math.max(0, check - 25) * 0.05 : 0),
    ),
  );
};

describe('a set of series', () => {
  it('is charted step by step as it is in one go, to the last bit', () => {
    for (const seed of [1, 2, 3]) {
      const all = checks(seed, 60);
      const whole = SET.map(({ leastSigma, value }) => controlChart(all.map(value), leastSigma, LIMITS));
      const baselines = baselinesOf(SET, all) ?? [];
      let state = startOfSet(SET);
      let alarms = 0;
      for (let check = BASELINE_CHECKS; check < all.length; check++) {
        const step = stepSet(SET, baselines, state, all[check], LIMITS);
        state = step.state;
        expect(step.alarm).toBe(whole.some((chart) => (chart?.over[check].length ?? 0) > 0));
        alarms += step.alarm ? 1 : 0;
        for (const [i, chart] of whole.entries()) {
          const { age, smooth, high, low } = stateOf(state, i);
          expect(age).toBe(check - BASELINE_CHECKS + 1);
          expect((chart?.centre ?? NaN) + smooth * (chart?.sigma ?? NaN)).toBe(chart?.ewma[check]);
          expect([high, low]).toEqual([chart?.cusumHigh[check], chart?.cusumLow[check]]);
        }
      }
      expect(alarms).toBeGreaterThan(3);
      expect(alarms).toBeLessThan(45);
    }
  });

  it('has no baseline before there are ten checks', () => {
    expect(baselinesOf(SET, checks(4, BASELINE_CHECKS - 1))).toBeUndefined();
    expect(baselinesOf(SET, checks(4, BASELINE_CHECKS))).toHaveLength(SET.length);
    expect(stateOf(startOfSet(SET), 2)).toEqual(START);
  });

  it('goes on from where it stood when checks between are left out', () => {
    const all = checks(5, 50).map((figures) => figures[1]);
    const whole = controlChart(all, 0.1, LIMITS);
    const [from, kept] = [30, [...all.slice(0, BASELINE_CHECKS), ...all.slice(30)]];
    const before = {
      ...{ age: from - BASELINE_CHECKS, high: whole?.cusumHigh[from - 1] ?? NaN },
      ...{ low: whole?.cusumLow[from - 1] ?? NaN },
      smooth: ((whole?.ewma[from - 1] ?? NaN) - (whole?.centre ?? NaN)) / (whole?.sigma ?? NaN),
    };
    const part = controlChart(kept, 0.1, LIMITS, before);
    expect(part?.over.slice(BASELINE_CHECKS)).toEqual(whole?.over.slice(from));
    expect(part?.ewmaLimit.at(-1)).toBe(whole?.ewmaLimit.at(-1));
    expect(part?.ewma.at(-1)).toBeCloseTo(whole?.ewma.at(-1) ?? NaN, 12);
  });
});
