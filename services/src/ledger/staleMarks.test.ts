import { describe, expect, it } from 'vitest';
import type { HeadMark, HeadSource } from '@melto/store/results';
import { staleMarks } from './staleMarks.ts';

const head = (
  headConditionId: number,
  link: HeadMark['link'],
  id: number,
  homeId = headConditionId,
): HeadMark => ({ headConditionId, link, id, homeId, verdict: null, validDays: null, madeMs: 0 });
const from = (resultId: number, parentId: number | null, changed = 0): HeadSource => ({
  resultId,
  parentId,
  changed,
});

describe('what is stale', () => {
  const chain = [head(1, 'limits', 10), head(1, 'curves', 11), head(1, 'profile', 12)];
  const made = [from(10, null), from(11, 10), from(12, 11), from(12, null)];

  it('is nothing where each stands on what is in force', () => {
    expect(staleMarks(chain, made)).toEqual(new Set());
  });

  it('is all that stands on what changed, however far down', () => {
    expect(staleMarks(chain, [...made, from(10, null, 1)])).toEqual(
      new Set(['1 limits', '1 curves', '1 profile']),
    );
    expect(staleMarks(chain, [...made, from(11, null, 1)])).toEqual(new Set(['1 curves', '1 profile']));
    const newer = [head(1, 'limits', 20), ...chain.slice(1)];
    expect(staleMarks(newer, made)).toEqual(new Set(['1 curves', '1 profile']));
    expect(staleMarks(chain.slice(1), made)).toEqual(new Set(['1 curves', '1 profile']));
  });

  it('is what is borrowed once its lender has another, and not before', () => {
    const borrowed = [...chain, head(2, 'curves', 11, 1), head(2, 'profile', 30)];
    const sources = [...made, from(30, 11)];
    expect(staleMarks(borrowed, sources)).toEqual(new Set());
    const lender = borrowed.map((each) =>
      each.id === 11 && each.headConditionId === 1 ? head(1, 'curves', 40) : each,
    );
    expect(staleMarks(lender, [...sources, from(40, 10)])).toEqual(
      new Set(['1 profile', '2 curves', '2 profile']),
    );
  });
});
