import { expect, it } from 'vitest';
import { inkCost } from './inkCosts.ts';

it('inks of a square metre cost what lies on it', () => {
  const costs = [
    { pricePerLitre: 100, millilitresPerM2: 2 },
    { pricePerLitre: 50, millilitresPerM2: 1 },
  ];
  // 1 ml at 100 a litre, half a ml at 50.
  expect(inkCost([0.5, 0.5], costs)).toBeCloseTo(0.1 + 0.025, 12);
  expect(inkCost([0, 0], costs)).toBe(0);
  expect(inkCost([1, 1, 1], costs)).toBeUndefined();
  expect(inkCost([], [])).toBeUndefined();
});
