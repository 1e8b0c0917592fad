import { describe, expect, it } from 'vitest';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { doubtfulLimits } from './toleranceSet.ts';

const setOf = (id: string) => TOLERANCE_SETS.find((set) => set.id === id) ?? TOLERANCE_SETS[0];

describe('the certainty of limits', () => {
  it('is told for every limit of a set that bears the name of a standard', () => {
    for (const { id, metrics } of TOLERANCE_SETS)
      expect(metrics.filter(({ certainty }) => certainty === undefined)).toHaveLength(
        id.startsWith('house') ? metrics.length : 0,
      );
  });

  it('names the one limit of offset that Melto chose', () => {
    expect(doubtfulLimits(setOf('iso12647-2-production'))).toEqual([
      'One limit is chosen by Melto, as no single number is published: chromatic solids ΔH.',
    ]);
  });

  it('says of a set that was taken over whole that all of it was', () => {
    const [words, ...more] = doubtfulLimits(setOf('iso12647-8-validation'));
    expect(words).toMatch(/^All limits of this set are taken over/);
    expect(more).toEqual([]);
  });

  it('has nothing to say of published limits and of a house of its own', () => {
    expect(doubtfulLimits(setOf('iso12647-7-proof'))).toEqual([]);
    expect(doubtfulLimits(setOf('house-photo'))).toEqual([]);
  });
});
