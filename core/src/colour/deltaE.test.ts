import { describe, expect, it } from 'vitest';
import { CIEDE2000_PAIRS } from './data/ciede2000Pairs.ts';
import { deltaE2000, deltaE2000Rows } from './deltaE2000.ts';
import { deltaE94 } from './deltaE94.ts';
import { deltaEAb, deltaCAb, deltaCh, deltaHAb } from './deltaEAb.ts';
import { deltaECmc } from './deltaECmc.ts';
import type { Lab } from './lab.ts';

describe('ΔE00', () => {
  it.each(CIEDE2000_PAIRS.map((pair, i) => [i + 1, pair] as const))(
    'gives published pair %i to 1e-4',
    (_, pair) => {
      const [l1, a1, b1, l2, a2, b2, expected] = pair;
      expect(Math.abs(deltaE2000([l1, a1, b1], [l2, a2, b2]) - expected)).toBeLessThan(1e-4);
      expect(Math.abs(deltaE2000([l2, a2, b2], [l1, a1, b1]) - expected)).toBeLessThan(1e-4);
    },
  );

  it('has 34 pairs and a batch form that agrees with the scalar one', () => {
    expect(CIEDE2000_PAIRS).toHaveLength(34);
    const a = CIEDE2000_PAIRS.flatMap((pair) => pair.slice(0, 3));
    const b = CIEDE2000_PAIRS.flatMap((pair) => pair.slice(3, 6));
    const rows = deltaE2000Rows(a, b);
    CIEDE2000_PAIRS.forEach((pair, i) => expect(rows[i]).toBeCloseTo(pair[6], 4));
  });
});

describe('other differences', () => {
  const reference: Lab = [50, 30, 40];
  const sample: Lab = [52, 26, 43];

  it('splits ΔE*ab into lightness, chroma and hue', () => {
    const total = deltaEAb(reference, sample);
    const parts = Math.hypot(2, deltaCAb(reference, sample), deltaHAb(reference, sample));
    expect(parts).toBeCloseTo(total, 12);
    expect(deltaHAb(reference, sample)).toBeGreaterThan(0);
    expect(deltaHAb(sample, reference)).toBeLessThan(0);
    expect(deltaCh(reference, sample)).toBeCloseTo(5, 12);
  });

  it('weighs chroma and hue in ΔE94 by the reference', () => {
    // ΔL 2, C 50 → 50.249, ΔC −0.249, ΔH² = 16 + 9 − ΔC²
    const dC = Math.hypot(26, 43) - 50;
    const expected = Math.sqrt(4 + (dC / 3.25) ** 2 + (25 - dC * dC) / 1.75 ** 2);
    expect(deltaE94(reference, sample)).toBeCloseTo(expected, 12);
  });

  it('gives ΔE CMC(1:1) of a lightness step by its own weight', () => {
    const sL = (0.040975 * 60) / (1 + 0.01765 * 60);
    expect(deltaECmc([60, 0, 0], [62, 0, 0], 1, 1)).toBeCloseTo(2 / sL, 12);
    expect(deltaECmc([60, 0, 0], [62, 0, 0], 2, 1)).toBeCloseTo(1 / sL, 12);
    // Two to one where nothing else is said.
    expect(deltaECmc(reference, sample)).toBe(deltaECmc(reference, sample, 2, 1));
    expect(deltaECmc([10, 0, 0], [11, 0, 0], 1, 1)).toBeCloseTo(1 / 0.511, 12);
  });
});
