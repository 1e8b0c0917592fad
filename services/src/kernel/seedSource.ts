import { randomInt } from 'node:crypto';
import { createRandom, seedFrom } from '@melto/core/numerics/random';

const SEEDS = 2 ** 31 - 1;

/**
 * Where seeds of prints and charts come from: by chance, or, where the house is given a seed, the same sequence for
 * each `use` at each start, so that a run can be told again.
 */
export function seedSource(house: string | undefined, use: string): () => number {
  if (house === undefined) return () => randomInt(1, SEEDS);
  const random = createRandom(seedFrom('seeds', house, use));
  return () => 1 + random.below(SEEDS - 1);
}
