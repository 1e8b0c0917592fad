import { describe, expect, it } from 'vitest';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { groupsOf } from './judgeColours.ts';
import type { ColourPair } from './judgeColours.ts';
import { scaleDifferences } from './scaleDifferences.ts';

/** A grey of a certain X, Y, Z share of white. */
const grey = (share: number): Lab =>
  xyzToLab(
    [share * WHITE_D50_MEASURED[0], share * WHITE_D50_MEASURED[1], share * WHITE_D50_MEASURED[2]],
    WHITE_D50_MEASURED,
  );
const pair = (device: readonly number[], aim: Lab, measured = aim): ColourPair => ({ device, aim, measured });

describe('differences that take more than one patch', () => {
  const paper = pair([0, 0, 0, 0], grey(0.8));
  const solid = pair([0, 0, 0, 1], grey(0.04));
  // Murray-Davies in Y: (0.8 − 0.42)/(0.8 − 0.04) = 50 %, (0.8 − 0.382)/0.76 = 55 %.
  const tint = pair([0, 0, 0, 0.5], grey(0.42), grey(0.382));

  it('tone values follow from paper and solid, measured minus aim', () => {
    const pairs = [paper, solid, tint];
    const { toneValue } = scaleDifferences(pairs, groupsOf(pairs));
    expect(toneValue(2)).toBeCloseTo(5, 6);
    expect(toneValue(1)).toBeCloseTo(0, 9);
    expect(toneValue(0)).toBeNaN();
  });

  it('are not known without the paper, the solid, or for more than one ink', () => {
    const noSolid = [paper, tint];
    expect(scaleDifferences(noSolid, groupsOf(noSolid)).toneValue(1)).toBeNaN();
    const noPaper = [solid, tint];
    expect(scaleDifferences(noPaper, groupsOf(noPaper)).toneValue(1)).toBeNaN();
    const pairs = [paper, solid, tint];
    const { weightedL, weightedCh } = scaleDifferences(pairs, groupsOf(pairs));
    expect(weightedL(0)).toBeNaN();
    expect(weightedCh(0)).toBeNaN();
    // The black scale has no colour of its own to be judged.
    expect(weightedCh(2)).toBe(0);
  });

  it('take the solid of the same ink', () => {
    const cyanSolid = pair([1, 0, 0, 0], [55, -37, -50]);
    const cyan = pair([0.5, 0, 0, 0], [75, -20, -25]);
    const without = [paper, solid, cyan];
    expect(scaleDifferences(without, groupsOf(without)).toneValue(2)).toBeNaN();
    const pairs = [paper, solid, cyanSolid, cyan];
    expect(scaleDifferences(pairs, groupsOf(pairs)).toneValue(3)).toBeCloseTo(0, 9);
  });

  it('leave spot colours out', () => {
    const pairs = [paper, solid, tint, { ...tint, spot: 'Seed red' }];
    const groups = groupsOf(pairs);
    expect([...groups[3]]).toEqual(['spot colours']);
    expect(scaleDifferences(pairs, groups).weightedL(3)).toBeNaN();
  });
});
