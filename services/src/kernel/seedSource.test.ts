import { describe, expect, it } from 'vitest';
import { seedSource } from './seedSource.ts';

const take = (house: string | undefined, use = 'web'): number[] => {
  const seed = seedSource(house, use);
  return Array.from({ length: 200 }, seed);
};

describe('seeds of prints and charts', () => {
  it('are the same again where the house has a seed, others for another seed or use', () => {
    expect(take('7')).toEqual(take('7'));
    expect(take('7')).not.toEqual(take('8'));
    expect(take('7')).not.toEqual(take('7', 'job 3'));
  });

  it('differ from start to start where it has none', () => {
    expect(take(undefined)).not.toEqual(take(undefined));
  });

  it('are positive whole numbers that do not repeat soon', () => {
    for (const house of [undefined, '7']) {
      const seeds = take(house);
      expect(seeds.every((seed) => Number.isInteger(seed) && seed >= 1 && seed < 2 ** 31)).toBe(true);
      expect(new Set(seeds).size).toBe(seeds.length);
    }
  });
});
