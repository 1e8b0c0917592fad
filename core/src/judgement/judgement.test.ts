import { describe, expect, it } from 'vitest';
import { formatAgainstLimit, metric } from './metric.ts';
import { markOf } from './mark.ts';
import { isVerdict, NEAR_SHARE, verdictOf, worstVerdict } from './verdict.ts';

describe('a verdict', () => {
  it('is within at the limit and fails just above it', () => {
    expect(verdictOf(3, 3)).toBe('near');
    expect(verdictOf(3 + 1e-12, 3)).toBe('does-not-conform');
    expect(verdictOf(0, 0)).toBe('conforms');
  });

  it('is near just above four fifths of the limit', () => {
    expect(NEAR_SHARE).toBe(0.8);
    expect(verdictOf(4, 5)).toBe('conforms');
    expect(verdictOf(4 + 1e-12, 5)).toBe('near');
  });

  it('is not judged where there is no number', () => {
    for (const value of [NaN, Infinity, -Infinity]) expect(verdictOf(value, 5)).toBe('not-judged');
  });

  it('of several is the worst: what fails is never hidden, what was not judged never praised', () => {
    expect(worstVerdict([])).toBe('conforms');
    expect(worstVerdict(['conforms', 'near'])).toBe('near');
    expect(worstVerdict(['near', 'not-judged', 'conforms'])).toBe('not-judged');
    expect(worstVerdict(['not-judged', 'does-not-conform', 'near'])).toBe('does-not-conform');
  });

  it('is one of four words', () => {
    expect(isVerdict('near')).toBe(true);
    for (const other of ['Near', '', 'current', null, 3]) expect(isVerdict(other)).toBe(false);
  });
});

describe('a metric', () => {
  it('tells its margin, which is negative where it fails', () => {
    expect(metric('mean', 2, 2.5)).toEqual({
      ...{ name: 'mean', value: 2, limit: 2.5, margin: 0.5, verdict: 'conforms' },
    });
    expect(metric('mean', 2.6, 2.5).margin).toBeCloseTo(-0.1, 12);
  });

  it('that fails is never shown as equal to its limit', () => {
    expect(formatAgainstLimit(2.5, 2.5)).toBe('2.50');
    expect(formatAgainstLimit(2.5001, 2.5)).toBe('2.5001');
    expect(formatAgainstLimit(2.51, 2.5)).toBe('2.51');
    expect(formatAgainstLimit(2.5 + 1e-9, 2.5)).toBe('2.500000001');
  });
});

describe('the mark of a link', () => {
  const all = { due: true, stale: true, moved: true };
  it('tells what presses most', () => {
    expect(markOf({ verdict: 'does-not-conform', ...all })).toBe('does-not-conform');
    expect(markOf({ verdict: 'conforms', ...all })).toBe('due');
    expect(markOf({ verdict: 'near', stale: true, moved: true })).toBe('stale');
    expect(markOf({ verdict: 'conforms', moved: true })).toBe('near');
    expect(markOf({ verdict: 'near' })).toBe('near');
    expect(markOf({ verdict: 'conforms' })).toBe('conforms');
  });

  it('is current where nothing was judged', () => {
    expect(markOf({ verdict: null })).toBe('current');
    expect(markOf({ verdict: 'not-judged' })).toBe('current');
    expect(markOf({ verdict: null, stale: true })).toBe('stale');
  });
});
