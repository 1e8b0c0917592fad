import { expect, it } from 'vitest';
import { xyzRange } from './colourRange.ts';

it('XYZ is within what prints have', () => {
  expect(xyzRange(Float64Array.of(-1, 0, 300))).toEqual({ ok: true, value: 300 });
  for (const value of [-1.01, 300.1, 1e308, Infinity, -Infinity, NaN])
    expect(xyzRange(Float64Array.of(80, value, 70)).ok, String(value)).toBe(false);
});
