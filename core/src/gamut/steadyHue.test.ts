import { describe, expect, it } from 'vitest';
import { labToIpt } from '../colour/ipt.ts';
import type { Lab } from '../colour/lab.ts';
import { lchToLab } from '../colour/labToLch.ts';
import { srgbToLab } from '../colour/srgb.ts';
import { steadyHue } from './steadyHue.ts';

const iptHue = (lab: Lab): number => {
  const [, p, t] = labToIpt(lab);
  return (Math.atan2(t, p) * 180) / Math.PI;
};
const apart = (a: number, b: number): number => Math.abs(((a - b + 540) % 360) - 180);

describe('a steady hue', () => {
  it('is that of the eye at the chroma that prints, in blue far from that of Lab', () => {
    const blue = srgbToLab([0, 0, 1]);
    for (const chroma of [30, 60, 90]) {
      const [, a, b] = steadyHue(blue, chroma);
      expect(Math.hypot(a, b)).toBeCloseTo(Math.hypot(blue[1], blue[2]), 9);
      const size = Math.hypot(a, b);
      const printed: Lab = [blue[0], (chroma * a) / size, (chroma * b) / size];
      expect(apart(iptHue(printed), iptHue(blue))).toBeLessThan(4);
    }
    const half: Lab = [blue[0], blue[1] / 2, blue[2] / 2];
    expect(apart(iptHue(half), iptHue(blue))).toBeGreaterThan(10);
  });

  it('is the hue itself where the colour prints, and comes to it without a step', () => {
    const wanted = lchToLab([40, 80, 300]);
    expect(steadyHue(wanted, 80)).toBe(wanted);
    const near = steadyHue(wanted, 79.5);
    expect(Math.hypot(near[1] - wanted[1], near[2] - wanted[2])).toBeLessThan(0.6);
    expect(steadyHue([40, 1, 1], 0.5)).toEqual([40, 1, 1]);
  });

  it('stays real for colours that no eye sees', () => {
    for (const wanted of [
      [2, 120, -128],
      [100, -128, 127],
      [50, 128, 0],
    ] as const)
      for (const value of steadyHue([...wanted], 20)) expect(Number.isFinite(value)).toBe(true);
  });
});
