import { describe, expect, it } from 'vitest';
import { toleranceChanges } from './toleranceChanges.ts';
import type { ToleranceMetric } from './toleranceSet.ts';

const metric = (group: ToleranceMetric['group'], limit: number): ToleranceMetric => ({
  ...{ group, limit },
  statistic: 'mean',
  quantity: 'ΔE00',
});

describe('changes of a tolerance set', () => {
  it('tells new, gone and moved metrics apart', () => {
    const before = [metric('all', 2.5), metric('solids', 3), metric('greys', 2)];
    const after = [metric('greys', 2), metric('all', 2), metric('overprints', 4)];
    expect(toleranceChanges(before, after)).toEqual({
      added: [metric('overprints', 4)],
      removed: [metric('solids', 3)],
      moved: [{ metric: metric('all', 2), from: 2.5 }],
    });
  });

  it('takes another statistic or quantity of the same group for another metric', () => {
    const before = [metric('all', 2)];
    const after = [{ ...metric('all', 2), statistic: 'largest' } as const];
    expect(toleranceChanges(before, after)).toMatchObject({ added: after, removed: before, moved: [] });
  });

  it('finds nothing where only the order changed', () => {
    const lines = [metric('all', 2), metric('greys', 1)];
    expect(toleranceChanges(lines, [...lines].reverse())).toEqual({ added: [], removed: [], moved: [] });
  });
});
