import { describe, expect, it } from 'vitest';
import { scaleBlackPoint } from '../colour/scaleBlackPoint.ts';
import { samplePressProfile } from '../icc/testing/samplePressProfile.ts';
import { sampleProfile } from '../icc/testing/sampleProfile.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { issueText, unwrap } from '../result.ts';
import { applyToneCurves, sampleToneCurve, straightCurve } from '../tone/toneCurve.ts';
import { conversion } from './conversion.ts';
import { blackPoint, toneCurves } from './links.ts';
import { BLOCK, chain, ofStages } from './transform.ts';
import type { Transform } from './transform.ts';

/** Adds a number to each of some channels. */
const plus = (by: number, inputs = 2, outputs = inputs): Transform =>
  ofStages({
    ...{ inputs, outputs, stride: Math.max(inputs, outputs) },
    stages: [
      (rows, count) =>
        rows.subarray(0, count * Math.max(inputs, outputs)).forEach((v, i, all) => (all[i] = v + by)),
    ],
  });
const press = samplePressProfile('press');

describe('a chain of transforms', () => {
  it.each([0, 1, BLOCK - 1, BLOCK, BLOCK + 1, 2 * BLOCK + 3])(
    'is one after the other for %d rows',
    (rows) => {
      const values = Float64Array.from({ length: 2 * rows }, (_, i) => i);
      const out = new Float64Array(2 * rows);
      chain(plus(1), plus(10), plus(100)).apply(values, out);
      expect([...out]).toEqual(Array.from(values, (value) => value + 111));
      // Plain lists as well, and the input stays as it was.
      const again = new Float64Array(2 * rows);
      chain(plus(1), plus(110)).apply(Array.from(values), again);
      expect([...again]).toEqual([...out]);
      expect([...values]).toEqual(Array.from({ length: 2 * rows }, (_, i) => i));
    },
  );

  it('refuses links that do not fit, values that are none, and room that is too small', () => {
    expect(() => chain(plus(1, 2), plus(1, 3))).toThrow(
      'link 2 of a chain takes 3 channels, the one before gives 2',
    );
    expect(() => chain(plus(1)).apply([1, NaN], new Float64Array(2))).toThrow('row 0, value 1: found NaN');
    expect(() => chain(plus(1)).apply([1, 2, 3, 4], new Float64Array(3))).toThrow('2 rows of 2 do not fit');
    const bounded = ofStages({ inputs: 1, outputs: 1, stride: 1, stages: [], least: 0, most: 1 });
    const out = new Float64Array(2);
    bounded.apply([0, 1], out);
    expect([...out]).toEqual([0, 1]);
    expect(() => bounded.apply([0, 1.001], out)).toThrow('row 1, value 0: found 1.001');
    expect(() => bounded.apply([-0.001], out)).toThrow('row 0');
  });

  it('of two that share a transform keeps their rows apart', () => {
    const shared = plus(1);
    const out = new Float64Array(4);
    chain(shared, chain(shared, shared)).apply([1, 2, 3, 4], out);
    expect([...out]).toEqual([4, 5, 6, 7]);
  });
});

describe('its links', () => {
  it('scale black points as the formula does', () => {
    const out = new Float64Array(6);
    const black = [0.01, 0.0105, 0.009] as const;
    blackPoint([0, 0, 0], black).apply([0, 0, 0, 60, 12, -30], out);
    expect([...out.subarray(0, 3)]).toEqual([...scaleBlackPoint([0, 0, 0], [0, 0, 0], black)]);
    expect([...out.subarray(3)]).toEqual([...scaleBlackPoint([60, 12, -30], [0, 0, 0], black)]);
    expect(out[0]).toBeGreaterThan(8);
  });

  it('apply the curve of each channel', () => {
    const curves = [straightCurve(), sampleToneCurve((t) => t * t), straightCurve(0.5), straightCurve(0.9)];
    const device = [0, 0.5, 1, 1, 0.25, 0.25, 0.25, 0.25];
    const out = new Float64Array(8);
    toneCurves(curves).apply(device, out);
    expect([...out]).toEqual([...applyToneCurves(curves, device)]);
  });
});

describe('a conversion', () => {
  const values = [0.2, 0.4, 0.6, 0.1, 0, 0, 0, 0, 1, 1, 0, 0.3];

  it('goes from inks to Lab, from Lab to inks, and from inks to inks through curves', () => {
    const lab = new Float64Array(9);
    unwrap(conversion({ from: press, intent: 'relative' })).apply(values, lab);
    const plain = new Float64Array(9);
    unwrap(deviceToLab(press, 'relative')).apply(values, plain);
    expect([...lab]).toEqual([...plain]);
    const inks = new Float64Array(12);
    unwrap(labToDevice(press, 'relative')).apply(lab, inks);
    const curves = [1, 2, 3, 4].map((i) => straightCurve(i / 4));
    const out = new Float64Array(12);
    unwrap(conversion({ from: press, to: press, intent: 'relative', curves })).apply(values, out);
    expect([...out]).toEqual([...applyToneCurves(curves, inks)]);
  });

  it.each([
    ['no profile', { intent: 'relative' }, 'profiles'],
    ['a black point with one profile', { from: press, intent: 'relative', blackPoint: true }, 'black point'],
    [
      'a black point of an absolute intent',
      { from: press, to: press, intent: 'absolute', blackPoint: true },
      'black point',
    ],
    ['curves without a device', { from: press, intent: 'relative', curves: [straightCurve()] }, 'curves'],
    ['too few curves', { to: press, intent: 'relative', curves: [straightCurve()] }, 'curves'],
  ] as const)('refuses %s in words', (_, asked, path) => {
    const made = conversion(asked);
    expect(made.ok ? '' : made.issues.map(issueText).join()).toContain(path);
  });

  it('says which profile has no way', () => {
    const { header, tags } = sampleProfile(2);
    const oneWay = { header, tags: new Map([...tags].filter(([tag]) => !tag.startsWith('B2A'))) };
    expect(conversion({ from: oneWay, intent: 'relative' }).ok).toBe(true);
    const made = conversion({ from: press, to: oneWay, intent: 'relative' });
    expect(made.ok ? '' : made.issues[0].path).toContain('B2A');
    const scaled = conversion({ from: press, to: oneWay, intent: 'relative', blackPoint: true });
    expect(scaled.ok ? '' : scaled.issues[0].path).toContain('B2A');
    // The black of what is come from is known without its way back.
    expect(conversion({ from: oneWay, to: press, intent: 'relative', blackPoint: true }).ok).toBe(true);
  });
});
