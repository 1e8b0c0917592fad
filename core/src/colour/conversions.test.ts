import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyMatrix3 } from '../numerics/matrix3.ts';
import { ADAPTATION_CONES, adaptationMatrix } from './chromaticAdaptation.ts';
import type { AdaptationMethod } from './chromaticAdaptation.ts';
import { iptToLab, labToIpt, withinCones } from './ipt.ts';
import { labToLch, lchToLab } from './labToLch.ts';
import { labToHex, labToScreen } from './srgb.ts';
import { WHITE_D50_MEASURED, WHITE_ICC, WHITE_SRGB } from './whitePoints.ts';
import { labToXyz, xyzRowsToLab, xyzToLab } from './xyzToLab.ts';

const anyLab = fc.tuple(
  fc.double({ min: 0, max: 100, noNaN: true }),
  fc.double({ min: -100, max: 100, noNaN: true }),
  fc.double({ min: -100, max: 100, noNaN: true }),
);

describe('CIELAB', () => {
  it('returns to the same Lab through XYZ, in the linear part too', () => {
    fc.assert(
      fc.property(anyLab, (lab) => {
        const back = xyzToLab(labToXyz(lab, WHITE_D50_MEASURED), WHITE_D50_MEASURED);
        for (let i = 0; i < 3; i++) expect(back[i]).toBeCloseTo(lab[i], 8);
      }),
    );
  });

  it('has its white at 100, 0, 0 and a batch form that agrees', () => {
    expect(xyzToLab(WHITE_D50_MEASURED, WHITE_D50_MEASURED)).toEqual([100, 0, 0]);
    const rows = Float64Array.of(20, 30, 10, 0.1, 0.1, 0.1);
    const out = new Float64Array(6);
    xyzRowsToLab(rows, WHITE_D50_MEASURED, out);
    expect([...out.subarray(3)]).toEqual([...xyzToLab([0.1, 0.1, 0.1], WHITE_D50_MEASURED)]);
  });

  it('returns through LCh and through IPT', () => {
    fc.assert(
      fc.property(anyLab, (lab) => {
        const viaLch = lchToLab(labToLch(lab));
        for (let i = 0; i < 3; i++) expect(viaLch[i]).toBeCloseTo(lab[i], 9);
      }),
    );
    const lab = [40, 30, -50] as const;
    iptToLab(labToIpt(lab)).forEach((value, i) => expect(value).toBeCloseTo(lab[i], 6));
  });

  it('keeps greys neutral in IPT', () => {
    for (const l of [5, 30, 70, 100]) {
      const [, p, t] = labToIpt([l, 0, 0]);
      expect(Math.hypot(p, t)).toBeLessThan(1e-9);
    }
  });
});

describe('adaptation', () => {
  it('takes one white exactly to the other by every method', () => {
    for (const method of Object.keys(ADAPTATION_CONES) as AdaptationMethod[]) {
      const adapted = applyMatrix3(adaptationMatrix(WHITE_SRGB, WHITE_ICC, method), WHITE_SRGB);
      adapted.forEach((value, i) => expect(value).toBeCloseTo(WHITE_ICC[i], 12));
    }
  });

  it('has cones that answer alike to their own white: equal energy, or D65 for von Kries', () => {
    for (const [method, white] of [
      ['bradford', [1, 1, 1]],
      ['cat16', [1, 1, 1]],
      ['vonKries', [0.95047, 1, 1.08883]],
    ] as const)
      for (const answer of applyMatrix3(ADAPTATION_CONES[method], white)) expect(answer).toBeCloseTo(1, 3);
  });

  it('has the Bradford matrix of D65 to D50 as published', () => {
    const published = [
      1.0478112, 0.0228866, -0.050127, 0.0295424, 0.9904844, -0.0170491, -0.0092345, 0.0150436, 0.7521316,
    ];
    adaptationMatrix([0.95047, 1, 1.08883], [0.96422, 1, 0.82521]).forEach((value, i) =>
      expect(value).toBeCloseTo(published[i], 6),
    );
  });
});

describe('colours for the screen', () => {
  it('shows sRGB red for its Lab and marks what is out of sRGB', () => {
    const red = labToScreen([54.29, 80.81, 69.89]);
    expect(red.rgb[0]).toBeGreaterThanOrEqual(254);
    expect(red.rgb[1]).toBeLessThanOrEqual(6);
    expect(red.clipped).toBe(false);
    expect(labToScreen([55, -60, -60]).clipped).toBe(true);
    expect(labToHex([100, 0, 0])).toBe('#ffffff');
    expect(labToHex([0, 0, 0])).toBe('#000000');
  });

  it('keeps real colours and draws others in until all cones respond', () => {
    for (const lab of [
      [54.3, 80.8, 69.9],
      [29.6, 68.3, -112],
      [97.6, -15.7, 93.4],
      [16.6, 37.5, 26],
    ] as const)
      expect(withinCones(lab)).toBe(lab);
    const [l, a, b] = withinCones([15, 69.3, 40]);
    expect(l).toBe(15);
    expect(Math.atan2(b, a)).toBeCloseTo(Math.atan2(40, 69.3), 9);
    expect(Math.hypot(a, b)).toBeGreaterThan(40);
    expect(Math.hypot(a, b)).toBeLessThan(60);
    // Farther out is the same colour: no jump of hue.
    withinCones([15, 138.6, 80]).forEach((value, i) => expect(value).toBeCloseTo([l, a, b][i], 1));
  });
});
