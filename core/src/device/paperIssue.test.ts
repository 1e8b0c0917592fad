import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { issueText } from '../result.ts';
import { paperIssue } from './paperIssue.ts';

describe('a measured stock', () => {
  const of = (l: number) => paperIssue(labToXyz([l, 0, 0], WHITE_D50_MEASURED));

  it('is one between board and the brightest paper', () => {
    for (const l of [35.01, 60, 97, 109.9]) expect(of(l)).toBeUndefined();
  });

  it('is none where it is as dark as ink, brighter than light, or no colour', () => {
    expect(issueText(of(34.9) ?? { code: '', expected: '', found: '' })).toBe(
      'bare paper: found L* 34.9, expected L* 35 to 110',
    );
    expect(of(110.1)).toBeDefined();
    expect(paperIssue([0, 0, 0])).toBeDefined();
    expect(paperIssue([NaN, NaN, NaN])?.found).toBe('no colour');
  });
});
