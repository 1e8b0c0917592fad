import { describe, expect, it } from 'vitest';
import { evenTicks } from './evenTicks';

describe('ticks of an axis', () => {
  const words = (low: number, high: number): string[] => {
    const { ticks, tickFormatter } = evenTicks(low, high);
    return ticks.map(tickFormatter);
  };

  it('stand at whole steps, with the decimals that these have', () => {
    expect(words(94.67, 95.83)).toEqual(['94.8', '95.0', '95.2', '95.4', '95.6', '95.8']);
    expect(words(-0.11, 0.11)).toEqual(['−0.10', '−0.05', '0.00', '0.05', '0.10']);
    expect(words(-14, 60)).toEqual(['0', '20', '40', '60']);
    expect(words(0, 0.004)).toEqual(['0.000', '0.001', '0.002', '0.003', '0.004']);
  });

  it('are told apart, however narrow the axis', () => {
    for (const width of [1e-4, 0.03, 0.7, 9, 1234])
      expect(new Set(words(3, 3 + width)).size).toBe(words(3, 3 + width).length);
  });
});
