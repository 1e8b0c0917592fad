import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED, WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { HOUSE_PHOTO, judgeShortCheck } from './shortCheck.ts';
import { formatAgainstLimit, metric } from '../judgement/metric.ts';
import { worstVerdict } from '../judgement/verdict.ts';
import type { ShortCheckPatch } from './shortCheck.ts';

const PAPER: Xyz = [85, 88, 72];

/** A patch that measures `measured` relative to the paper and was asked as `asked`. */
function patch(name: string, asked: Lab, measured: Lab, inGamut = true): ShortCheckPatch {
  const relative = labToXyz(measured, WHITE_ICC);
  const xyz: Xyz = [
    (relative[0] / WHITE_ICC[0]) * PAPER[0],
    (relative[1] / WHITE_ICC[1]) * PAPER[1],
    (relative[2] / WHITE_ICC[2]) * PAPER[2],
  ];
  return { name, asked, device: [0.5, 0.5, 0.5], xyz, predicted: xyzToLab(xyz, WHITE_D50_MEASURED), inGamut };
}

/** Greys that differ by ΔL* alone at L* 50, where SL is 1: ΔE00 is the difference of L*. */
const grey = (difference: number, inGamut = true): ShortCheckPatch => {
  // ΔE00 of two greys: |ΔL| / SL with SL at their mean lightness.
  const mean = 50;
  return patch(`grey ${difference}`, [mean - difference / 2, 0, 0], [mean + difference / 2, 0, 0], inGamut);
};

describe('short check', () => {
  it('judges relative to the paper, by colours in gamut only', () => {
    const check = judgeShortCheck([grey(1), grey(2), grey(3), grey(40, false)], PAPER, HOUSE_PHOTO);
    expect(check.reached.mean).toBeCloseTo(2, 9);
    expect(check.reached.largest).toBeCloseTo(3, 9);
    expect(check.reached.count).toBe(3);
    expect(check.inGamutShare).toBe(0.75);
    expect(check.repeats.count).toBe(4);
    expect(check.repeats.largest).toBeLessThan(1e-9);
    expect(check.verdict).toBe('conforms');
    expect(check.tight).toBe(false);
  });

  it('fails in exactly the metric that is over its limit, by unrounded values', () => {
    const over = judgeShortCheck([grey(3.01), grey(3.01)], PAPER, HOUSE_PHOTO);
    expect(over.metrics.map(({ verdict }) => verdict)).toEqual(['does-not-conform', 'conforms']);
    expect(over.verdict).toBe('does-not-conform');
    const one = judgeShortCheck(
      [grey(8.004), ...Array.from({ length: 9 }, () => grey(0.1))],
      PAPER,
      HOUSE_PHOTO,
    );
    expect(one.metrics.map(({ verdict }) => verdict)).toEqual(['conforms', 'does-not-conform']);
  });

  it('calls values over 80 % of a limit near, and equal ones within', () => {
    expect(metric('m', 2.4, 3).verdict).toBe('conforms');
    expect(metric('m', 2.41, 3).verdict).toBe('near');
    expect(metric('m', 3, 3)).toMatchObject({ verdict: 'near', margin: 0 });
    expect(metric('m', 3.0000001, 3).verdict).toBe('does-not-conform');
    expect(metric('m', NaN, 3).verdict).toBe('not-judged');
  });

  it('grades tight only where both tight limits hold', () => {
    expect(judgeShortCheck([grey(1.4), grey(1.4)], PAPER, HOUSE_PHOTO).tight).toBe(true);
    expect(judgeShortCheck([grey(4.2), grey(0.1), grey(0.1), grey(0.1)], PAPER, HOUSE_PHOTO).tight).toBe(
      false,
    );
    // Limits of one's own have no such grade.
    const own = { ...HOUSE_PHOTO, name: 'Own limits' };
    expect(judgeShortCheck([grey(1.4), grey(1.4)], PAPER, own)).toMatchObject({ tight: false, limits: own });
  });

  it('says nothing where most colours lie outside the gamut', () => {
    expect(judgeShortCheck([grey(1), grey(1, false), grey(1, false)], PAPER, HOUSE_PHOTO).verdict).toBe(
      'not-judged',
    );
  });

  it('never shows a failing value as equal to its limit', () => {
    expect(formatAgainstLimit(2.5, 3)).toBe('2.50');
    expect(formatAgainstLimit(3.004, 3)).toBe('3.004');
    expect(formatAgainstLimit(3.00001, 3)).toBe('3.00001');
    expect(formatAgainstLimit(3.01, 3)).toBe('3.01');
    expect(worstVerdict(['conforms', 'near', 'not-judged'])).toBe('not-judged');
    expect(worstVerdict([])).toBe('conforms');
  });
});
