import { describe, expect, it } from 'vitest';
import { budgetShare, errorBudget } from './errorBudget.ts';

const part = (size: number) => ({ size, from: 'test' });

describe('error budget', () => {
  it('adds independent sources as squares and leaves the rest', () => {
    const budget = errorBudget(1.3, { instrument: part(0.3), model: part(0.4) });
    expect(budget?.parts.map(({ source }) => source)).toEqual(['instrument', 'model', 'rest']);
    // 1.3² − 0.3² − 0.4² = 1.2².
    expect(budget?.parts[2].size).toBeCloseTo(1.2, 9);
    const shares = budget?.parts.map((each) => budgetShare(each, budget)) ?? [];
    expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
  });

  it('cuts sources to the total, and never gives a size that is no number', () => {
    for (const total of [0.1, 0.30000001, 1 / 3, 0.7]) {
      const budget = errorBudget(total, { instrument: part(0.3), gamut: part(5) });
      for (const { size } of budget?.parts ?? []) expect(size).toBeGreaterThanOrEqual(0);
      expect(budget?.parts.at(-1)?.size).toBeLessThan(1e-6);
    }
  });

  it('says nothing where nothing is known', () => {
    expect(errorBudget(1, {})).toBeUndefined();
    expect(errorBudget(1, { sheet: part(NaN) })).toBeUndefined();
  });
});
