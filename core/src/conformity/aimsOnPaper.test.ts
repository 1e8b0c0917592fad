import { describe, expect, it } from 'vitest';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { unwrap } from '../result.ts';
import { aimsFor, publishedAims } from './aims.ts';
import type { Aims } from './aims.ts';
import { aimsOnPaper, paperMove, paperShift } from './aimsOnPaper.ts';
import { PUBLISHED_CONDITIONS } from './data/publishedConditions.ts';

const [PUBLISHED] = PUBLISHED_CONDITIONS;
/** Paper, a middle tone and the darkest colour. */
const OWN: Aims = {
  conditions: { mode: 'M1' },
  device: Float64Array.of(0, 0, 0, 0, 0.5, 0, 0, 0, 1, 1, 1, 1),
  xyz: Float64Array.of(80, 84, 70, 40, 44, 50, 2, 2, 2),
};

describe('aims on this paper', () => {
  it('puts the paper on the white that was measured and leaves the darkest aim', () => {
    const move = unwrap(paperMove(OWN, [70, 73, 55]));
    const on = aimsOnPaper(OWN, move);
    const rounded = Array.from(on.xyz, (value) => Number(value.toFixed(9)));
    // X of the middle: 40·(1+c) − 2·c with c = (70 − 80)/(80 − 2)
    expect(rounded).toEqual([
      ...[70, 73, 55],
      ...[40 - 380 / 78, 44 - (42 * 11) / 82, 50 - (48 * 15) / 68].map((value) => Number(value.toFixed(9))),
      ...[2, 2, 2],
    ]);
  });

  it('moves what is completed from published solids as the solids themselves', () => {
    const aims = publishedAims(PUBLISHED);
    const wanted = Float64Array.of(0, 0, 0, 0, 0.4, 0.3, 0.3, 0, 0, 0, 0, 0.5);
    const before = aimsFor(aims, wanted);
    const move = unwrap(paperMove(aims, [72, 75, 60]));
    const after = aimsFor(aimsOnPaper(aims, move), wanted);
    expect(after.origins).toEqual(before.origins);
    for (let i = 0; i < wanted.length / 4; i++)
      for (let axis = 0; axis < 3; axis++) {
        const c = (move.to[axis] - move.from[axis]) / (move.from[axis] - move.least[axis]);
        expect(after.xyz[3 * i + axis]).toBeCloseTo(
          before.xyz[3 * i + axis] * (1 + c) - move.least[axis] * c,
          9,
        );
      }
    // A move by all four inks: nothing that is completed may lie below what does not move.
    expect(aimsFor(aims, Float64Array.of(1, 1, 1, 1)).xyz[1]).toBeCloseTo(move.least[1], 9);
  });

  it('tells how far paper and solids go', () => {
    const aims = publishedAims(PUBLISHED);
    const shift = paperShift(aims, unwrap(paperMove(aims, [72, 75, 60])));
    expect(shift.primaries.map(({ name }) => name)).toContain('C+M+Y');
    const paper = shift.primaries.find(({ name }) => name === 'paper');
    const lab = new Float64Array(3);
    xyzRowsToLab(Float64Array.of(72, 75, 60), WHITE_D50_MEASURED, lab);
    paper?.after.forEach((value, axis) => expect(value).toBeCloseTo(lab[axis], 6));
    expect(shift.deltaE).toBeCloseTo(paper?.deltaE ?? 0, 6);
    const black = shift.primaries.find(({ name }) => name === 'K');
    expect(black?.deltaE).toBeLessThan(shift.deltaE);
  });

  it('refuses aims without paper and a white that is darker than an aim', () => {
    const bare = { ...OWN, device: Float64Array.of(0.1, 0, 0, 0, 0.5, 0, 0, 0, 1, 1, 1, 1) };
    expect(paperMove(bare, [70, 73, 55])).toMatchObject({ ok: false, issues: [{ path: 'aims' }] });
    expect(paperMove(OWN, [70, 73, 2])).toMatchObject({ ok: false, issues: [{ path: 'white' }] });
    expect(paperMove(OWN, [70, 73, 2.001]).ok).toBe(true);
  });
});
