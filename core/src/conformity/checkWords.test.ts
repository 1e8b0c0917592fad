import { describe, expect, it } from 'vitest';
import type { CheckDetail, StoredMetric } from './checkDetail.ts';
import { distributionOf } from './checkDetail.ts';
import type { CheckedPatch } from './checkDetail.ts';
import {
  decidesSentences,
  metricValue,
  reasonSentence,
  remedySentence,
  verdictSentence,
} from './checkWords.ts';

const line = (
  value: number | null,
  limit: number,
  group: StoredMetric['group'] = 'solids',
): StoredMetric => ({
  group,
  statistic: 'largest',
  quantity: 'ΔE00',
  limit,
  value,
  margin: value === null ? null : limit - value,
  verdict: value === null ? 'not-judged' : value > limit ? 'does-not-conform' : 'conforms',
  count: 4,
  worst: 0,
});
const detail = (change: Partial<CheckDetail>): CheckDetail =>
  ({
    verdict: 'conforms',
    substrateCorrected: false,
    otherwise: [],
    metrics: [line(1, 3)],
    patches: [{ name: 'C 100' }, { name: 'M 100' }],
    header: { aims: { name: 'FOGRA39L' }, tolerances: { name: 'ISO 12647-7 proof' } },
    decides: { deciding: [], remedies: [], share: 1.2, outOfReach: [], drift: null },
    ...change,
  }) as unknown as CheckDetail;

describe('words of a check', () => {
  it('say the standard, and the correction where there was one', () => {
    expect(verdictSentence(detail({}))).toBe('conforms to ISO 12647-7 proof');
    expect(verdictSentence(detail({ verdict: 'near', substrateCorrected: true }))).toBe(
      'conforms to ISO 12647-7 proof (substrate-corrected)',
    );
    expect(verdictSentence(detail({ verdict: 'not-judged' }))).toBe('not judged by ISO 12647-7 proof');
  });

  it('name what is over, what is missing, or what is nearest', () => {
    expect(reasonSentence(detail({ metrics: [line(3.0004, 3), line(1, 3, 'greys')] }))).toBe(
      'solids, largest ΔE00 is 0.0004 over',
    );
    expect(reasonSentence(detail({ verdict: 'not-judged', metrics: [line(null, 3)] }))).toBe(
      'no patches for solids, largest ΔE00',
    );
    expect(reasonSentence(detail({ otherwise: ['read in M0, the aims are for M1'] }))).toContain(
      'gets no verdict',
    );
    expect(reasonSentence(detail({ metrics: [line(1, 3), line(2, 3, 'greys')] }))).toBe(
      'the nearest to its limit is greys, largest ΔE00, 2.00 of 3.0',
    );
    expect(metricValue(line(null, 3))).toBe('–');
  });

  it('say by how much, with as many decimals as it takes to be seen', () => {
    const over = (by: number): string => reasonSentence(detail({ metrics: [line(3 + by, 3)] }));
    expect(over(0.5)).toContain('is 0.50 over');
    expect(over(0.004)).toContain('is 0.004 over');
    expect(over(0.00004)).toContain('is 0.00004 over');
    expect(over(0.000001)).toContain('e-6 over');
  });

  it('tell remedies by what they would come to', () => {
    const remedy = { kind: 'density', ink: 1, change: -0.04, verdict: 'conforms', share: 0.9 } as const;
    expect(remedySentence(remedy, 1.2)).toBe('With 4 % less density of magenta it would conform.');
    expect(remedySentence({ ...remedy, kind: 'gain', verdict: 'does-not-conform', share: 1.1 }, 1.25)).toBe(
      'With 4 % less tone value of magenta at the midtone the worst figure would fall from 125 % to 110 % of its limit.',
    );
  });

  it('say that colours lie out of reach, and that nothing alone would help', () => {
    const deciding = [{ metric: 0, rows: [0, 1] }];
    const failing = detail({
      verdict: 'does-not-conform',
      metrics: [line(4, 3)],
      decides: { deciding, remedies: [], share: 1.3, outOfReach: [1], drift: null },
    });
    expect(decidesSentences(failing)).toEqual([
      '2 patches decide solids, largest ΔE00: C 100, M 100.',
      expect.stringMatching(/^1 of these 2 lies outside what this device reaches/),
    ]);
    const nothing = { ...failing, decides: { ...failing.decides, outOfReach: [] } };
    expect(decidesSentences(nothing).at(-1)).toBe(
      'No single change of an ink or of the paper would mend it.',
    );
  });

  it('distributions are as worked out by hand', () => {
    // 0, 0.1 … 4: 41 values, the 95th percentile lies at the 38th: 3.8; the tail is 3.8, 3.9, 4.
    const values = Array.from({ length: 41 }, (_, i) => i / 10);
    const { mean, median, p90, p95, tail, largest, standardDeviation } = distributionOf(
      values.map((deltaE) => ({ deltaE, groups: ['all'] }) as unknown as CheckedPatch),
    );
    expect([mean, median, p90, p95, tail, largest].map((value) => Number(value.toFixed(9)))).toEqual([
      2, 2, 3.6, 3.8, 3.9, 4,
    ]);
    // (n² − 1)/12 · step² · n/(n − 1)
    expect(standardDeviation).toBeCloseTo(Math.sqrt((((41 ** 2 - 1) / 12) * 0.01 * 41) / 40), 9);
  });
});
