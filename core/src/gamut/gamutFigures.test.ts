import { describe, expect, it } from 'vitest';
import { readIcc } from '../icc/readIcc.ts';
import { unwrap } from '../result.ts';
import { wrenModel, wrenProfileBytes } from '../../test/wrenProfile.ts';
import { bodyFrom, bodyVolume } from './gamutBody.ts';
import { densityOverPaper, gamutFigures } from './gamutFigures.ts';
import { profileBody } from './profileBody.ts';

const profile = unwrap(readIcc(wrenProfileBytes(4, wrenModel())));

describe('what a profile prints, in figures', () => {
  it('is the volume of its body with its paper, and the ends of its greys', () => {
    const figures = gamutFigures(profile);
    const { body } = unwrap(profileBody(profile, 'wren'));
    expect(figures?.volume).toBeCloseTo(bodyVolume(bodyFrom(body, 50)), 6);
    expect(figures?.white[0]).toBeCloseTo(body.lightest, 0);
    expect(figures?.black[0]).toBeGreaterThan(body.darkest - 1);
    expect(figures?.black[0]).toBeLessThan(30);
  });

  it('is not known of a profile that leads one way', () => {
    const oneWay = {
      ...profile,
      tags: new Map([...profile.tags].filter(([name]) => !name.startsWith('B2A'))),
    };
    expect(gamutFigures(oneWay)).toBeUndefined();
  });

  it('has densities by luminance: a tenth of the paper’s is 1', () => {
    // Y 90 and Y 9 by the definition of L*.
    const lightness = (y: number): number[] => [116 * Math.cbrt(y) - 16, 0, 0];
    expect(densityOverPaper(lightness(0.09), lightness(0.9))).toBeCloseTo(1, 6);
    expect(densityOverPaper(lightness(0.5), lightness(0.5))).toBeCloseTo(0, 9);
  });
});
