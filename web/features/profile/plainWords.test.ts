import { describe, expect, it } from 'vitest';
import type { ProfileDetail, ProfileSummary } from '@melto/services/ledger/kinds/profileKind';
import { plainWords } from './plainWords';

const summary = { mean: 0.274, p95: 0.61 } as ProfileSummary;
const errors = (largest: number) => ({ count: 200, mean: 0.5, median: 0.4, p95: 1, largest });
const detail = {
  report: { outliers: [] },
  inks: { roundTrip: errors(1), totalInk: 2.999, reversals: 0 },
  smoothness: { colorimetric: errors(2), perceptual: errors(1.8) },
} as unknown as ProfileDetail;

describe('a report in plain words', () => {
  it('says the figures of a sound profile', () => {
    expect(plainWords(summary, detail)).toEqual([
      'A patch that the model has not seen comes out within 0.27 ΔE00 on average, 19 of 20 within 0.61; reading noise is in these figures.',
      'A colour sent to ink and back returns within 0.50 ΔE00; ink reaches 299.9 % at most.',
      'Lightness and black rise evenly along the greys.',
      'No gradient shows an edge: 200 paths through colour bend gently.',
    ]);
  });

  it('says what is wrong', () => {
    const words = plainWords(summary, {
      ...detail,
      report: { ...detail.report, outliers: [4] },
      inks: { ...detail.inks!, reversals: 3 },
      smoothness: { colorimetric: errors(2), perceptual: errors(6.25) },
    }).join(' ');
    expect(words).toContain('1 patch disagrees with the rest');
    expect(words).toContain('turns back 3 times');
    expect(words).toContain('bends by 6.25 ΔE*ab');
  });

  it('says what a refinement did, where it did harm too, and when the device moved', () => {
    const refinement = {
      sheets: ['HRN-0009'],
      addedPatches: 100,
      agreement: 0.91,
      wanted: [
        { name: 'Tide blue', asked: [30, 0, -40], before: 0.8, after: 0.1 },
        { name: 'Seed red', asked: [45, 60, 40], before: 0.4, after: 0.2 },
      ],
      elsewhere: { before: 0.3, after: 0.29 },
    };
    const words = plainWords(summary, { ...detail, refinement }).join(' ');
    expect(words).toContain('2 wanted colours: printed 0.60 ΔE00 off before, expected 0.15 now.');
    expect(words).toContain('Elsewhere it is no worse');
    expect(words).toContain('HRN-0009 differ by 0.91');
    const worse = { ...refinement, agreement: null, elsewhere: { before: 0.3, after: 0.35 } };
    expect(plainWords(summary, { ...detail, refinement: worse }).at(-1)).toBe('Elsewhere 0.30 became 0.35.');
  });
});
