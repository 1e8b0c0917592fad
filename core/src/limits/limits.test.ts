import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { straightCurve } from '../tone/toneCurve.ts';
import { proposeLimit } from './proposeLimit.ts';
import type { LimitProposal } from './proposeLimit.ts';
import { inputTotalOf, proposeTotalInk } from './totalInk.ts';

const PAPER = Float64Array.from(labToXyz([95, 0, 0], WHITE_D50_MEASURED));

/** A ramp of 41 steps that goes along these colours without noise. */
function limitOf(ink: string, colour: (tone: number) => readonly [number, number, number]): LimitProposal {
  const tone = Float64Array.from({ length: 41 }, (_, i) => i / 40);
  const xyz = Float64Array.from([...tone].flatMap((t) => [...labToXyz([...colour(t)], WHITE_D50_MEASURED)]));
  const density = tone.map((t) => 1.4 * t);
  return proposeLimit(
    { ink, tone, xyz, density, rows: [] } as unknown as Parameters<typeof proposeLimit>[0],
    PAPER,
  );
}

/** Chroma grows evenly to 70; past 70 % the hue turns by so many degrees to the end. */
function turning(degrees: number): LimitProposal {
  return limitOf('M', (t) => {
    const hue = ((degrees * Math.max(0, t - 0.7)) / 0.3) * (Math.PI / 180);
    return [95 - 45 * t, 70 * t * Math.cos(hue), 70 * t * Math.sin(hue)];
  });
}

describe('the limit of an ink', () => {
  it('goes by the tones, in whatever order they were read', () => {
    const tones = [0.7, 0.1, 1, 0.4, 0, 0.9, 0.2, 0.8, 0.5, 0.3, 0.6];
    const colour = (t: number): readonly [number, number, number] => [95 - 45 * t, t < 0.8 ? 70 * t : 56, 0];
    const of = (tone: Float64Array): LimitProposal =>
      proposeLimit(
        {
          ...{ ink: 'M', tone, density: tone.map((t) => 1.4 * t), rows: [] },
          xyz: Float64Array.from([...tone].flatMap((t) => [...labToXyz([...colour(t)], WHITE_D50_MEASURED)])),
        } as unknown as Parameters<typeof proposeLimit>[0],
        PAPER,
      );
    const straight = of(Float64Array.from(tones).sort());
    expect(straight.limit).toBeLessThan(1);
    expect(of(Float64Array.from(tones))).toEqual(straight);
  });

  it('is none where chroma grows evenly and the hue stands', () => {
    expect(turning(0)).toMatchObject({ limit: 1, reason: 'none' });
  });

  it('is where the hue has turned by six degrees, and not before', () => {
    expect(turning(5.5)).toMatchObject({ limit: 1, reason: 'none' });
    const far = turning(12);
    expect(far.reason).toBe('hue turns');
    // Half of the turn of twelve degrees, half of the way from 70 %.
    expect(far.limit).toBeGreaterThan(0.84);
    expect(far.limit).toBeLessThan(0.88);
    expect(turning(7).limit).toBeGreaterThan(0.93);
    // A turn through 180° is as far as any other.
    const across = limitOf('C', (t) => {
      const hue = Math.PI + ((12 * Math.max(0, t - 0.7)) / 0.3 - 6) * (Math.PI / 180);
      return [95 - 45 * t, 60 * t * Math.cos(hue), 60 * t * Math.sin(hue)];
    });
    expect(across.reason).toBe('hue turns');
    expect(across.limit).toBeGreaterThan(0.84);
  });

  it('of black does not ask for hue, but for darkness', () => {
    const black = limitOf('K', (t) => [95 - 80 * Math.min(1, t / 0.8), 9 * (t - 0.5), 5 * t]);
    expect(black.reason).toBe('little darker');
    expect(black.limit).toBeGreaterThan(0.75);
    expect(black.limit).toBeLessThan(0.85);
  });

  it('is where chroma hardly grows on to the end, not at a bump after which it does', () => {
    const grows =
      (upTo: number, after: number) =>
      (t: number): readonly [number, number, number] => [
        95 - 45 * t,
        t < upTo ? (70 * t) / upTo : 70 + after * (t - upTo),
        0,
      ];
    expect(limitOf('M', grows(0.8, 0)).reason).toBe('little more chroma');
    // The mean slope is about 70: a seventh of it and more is worth its ink.
    expect(limitOf('M', grows(0.8, 5)).reason).toBe('little more chroma');
    expect(limitOf('M', grows(0.8, 25)).reason).toBe('none');
    const bump = limitOf('M', (t) => [
      95 - 45 * t,
      t < 0.78 ? 70 * t : t < 0.86 ? 54.6 : 54.6 + 110 * (t - 0.86),
      0,
    ]);
    expect(bump).toMatchObject({ limit: 1, reason: 'none' });
  });
});

describe('total ink', () => {
  /** Series of full black and equal inks; each step read twice, the copies this far apart. */
  function totalOf(densities: readonly number[], apart = 0): ReturnType<typeof proposeTotalInk> {
    const device: number[] = [];
    const xyz: number[] = [];
    densities.forEach((density, i) => {
      const ink = 0.1 + i * 0.1;
      for (const side of [-1, 1]) {
        const y = 80 * 10 ** -(density + (side * apart) / 2);
        device.push(ink, ink, ink, 1);
        xyz.push(y, y, y);
      }
    });
    return proposeTotalInk(Float64Array.from(device), Float64Array.from(xyz), 80);
  }

  it('is the least that is within 0.03 of the darkest', () => {
    const just = totalOf([1.5, 1.6, 1.7, 1.771, 1.79, 1.8]);
    expect(just?.tolerance).toBe(0.03);
    expect(just?.total).toBeCloseTo(1 + 3 * 0.4, 9);
    expect(totalOf([1.5, 1.6, 1.7, 1.769, 1.79, 1.8])?.total).toBeCloseTo(1 + 3 * 0.5, 9);
    expect(totalOf([1.5, 1.6, 1.7, 1.8])).toBeUndefined();
  });

  it('allows twice the repeatability where the copies differ by more', () => {
    // σ of two copies is their distance over √2; the mean departure stands for it with 1.2533.
    const noisy = totalOf([1.5, 1.6, 1.7, 1.735, 1.79, 1.8], 0.04);
    expect(noisy?.tolerance).toBeCloseTo((2 * 1.2533 * 0.04) / Math.SQRT2, 6);
    expect(noisy?.total).toBeCloseTo(1 + 3 * 0.4, 9);
    expect(totalOf([1.5, 1.6, 1.7, 1.725, 1.79, 1.8], 0.04)?.total).toBeCloseTo(1 + 3 * 0.5, 9);
    expect(totalOf([1.5, 1.6, 1.7, 1.735, 1.79, 1.8], 0.01)?.total).toBeCloseTo(1 + 3 * 0.5, 9);
  });

  it('at the input of the curves puts that much on the stock', () => {
    const curves = [straightCurve(), straightCurve(0.8), straightCurve(0.9), straightCurve()] as const;
    const input = inputTotalOf(2.5, curves as unknown as Parameters<typeof inputTotalOf>[1]);
    expect(1 + ((input - 1) / 3) * 2.7).toBeCloseTo(2.5, 6);
    expect(inputTotalOf(3.7, curves as unknown as Parameters<typeof inputTotalOf>[1])).toBe(4);
    expect(inputTotalOf(3.69, curves as unknown as Parameters<typeof inputTotalOf>[1])).toBeLessThan(4);
  });
});
