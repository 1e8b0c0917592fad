import { expect, it } from 'vitest';
import { CMYK_SHAPE, isPrimary } from './fitReport.ts';

it('a primary has each ink full or not at all, but for rounding', () => {
  expect(isPrimary(Float64Array.of(0.0099, 1, 0.9901, 0))).toBe(true);
  expect(isPrimary(Float64Array.of(0.0101, 1, 0, 0))).toBe(false);
  expect(isPrimary(Float64Array.of(0, 0.9899, 0, 0))).toBe(false);
});

it('greys of inks fall with lightness, and meet at paper and at three full inks', () => {
  expect([...CMYK_SHAPE.grey(1)]).toEqual([0, 0, 0, 0]);
  const [c, m, y, k] = CMYK_SHAPE.grey(0);
  expect([c, m, y, k]).toEqual([1, m, m, 0]);
  expect(m).toBeGreaterThan(0.9);
  expect(m).toBeLessThanOrEqual(1);
  expect(CMYK_SHAPE.grey(0.25)[0]).toBeCloseTo(0.75, 12);
  expect([...CMYK_SHAPE.additive([1, 0.25, 0])]).toEqual([0, 0.75, 1, 0]);
});
