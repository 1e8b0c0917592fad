import { describe, expect, it } from 'vitest';
import { expectedExtraInks } from '../charts/manyInkChart.ts';
import { inkProcess } from '../device/process.ts';
import { extraInksOf, extraShare, inkFamilies } from './extraInks.ts';
import type { ExtraInks } from './extraInks.ts';

const EIGHT = expectedExtraInks(inkProcess([...'CMYKOGVR']));
const hue = (degrees: number, chroma: number): [number, number] => [
  chroma * Math.cos((degrees * Math.PI) / 180),
  chroma * Math.sin((degrees * Math.PI) / 180),
];
/** Solids at hues of a made-up device, overprints half-way between. */
const device = (hues: readonly number[]): ExtraInks | { readonly ink: number; readonly as: number } =>
  extraInksOf(
    [0, 1, 2],
    3,
    hues.length,
    {
      solid: (ink) => [50, ...hue(hues[ink], 60)],
      overprint: (one, other) => {
        const apart = ((hues[other] - hues[one] + 540) % 360) - 180;
        return [40, ...hue(hues[one] + apart / 2, 60)];
      },
    },
    0.7,
  );

describe('extra inks', () => {
  it('stand between the two of C, M, Y whose hues are beside theirs, and those of one place may mix', () => {
    const [orange, green, violet, red] = EIGHT.inks;
    expect(orange.between).toEqual([1, 2]);
    expect(green.between).toEqual([2, 0]);
    expect(violet.between).toEqual([0, 1]);
    expect(red.between).toEqual([1, 2]);
    expect(inkFamilies(EIGHT)).toEqual([
      [0, 1, 2, 3, 4, 7],
      [0, 1, 2, 3, 5],
      [0, 1, 2, 3, 6],
    ]);
    expect(inkFamilies({ ...EIGHT, inks: [] })).toEqual([[0, 1, 2, 3]]);
  });

  it('take no part in greys, nor at the hues of their neighbours, and all of it past the overprints', () => {
    // Cyan 240°, magenta 350°, yellow 90°, orange 40°.
    const found = device([240, 350, 90, 0, 40]);
    if ('as' in found) throw new Error('a place was expected');
    const [orange] = found.inks;
    expect(orange.below.begins).toBeCloseTo(50, 9);
    expect(orange.above.begins).toBeCloseTo(50, 9);
    expect(extraShare(orange, ...hue(40, 4))).toBe(0);
    expect(extraShare(orange, ...hue(40, 4.01))).toBeGreaterThan(0);
    expect(extraShare(orange, ...hue(40, 20))).toBe(1);
    expect(extraShare(orange, ...hue(40, 19.9))).toBeLessThan(1);
    for (const [edge, inside] of [
      [350, 350.1],
      [90, 89.9],
    ]) {
      expect(extraShare(orange, ...hue(edge, 60))).toBeCloseTo(0, 12);
      expect(extraShare(orange, ...hue(inside, 60))).toBeGreaterThan(0);
    }
    // Four fifths of the way to the overprint with magenta at 15°.
    expect(extraShare(orange, ...hue(10, 60))).toBeCloseTo(1, 9);
    expect(extraShare(orange, ...hue(9.5, 60))).toBeLessThan(1);
    expect(extraShare(orange, ...hue(220, 60))).toBe(0);
  });

  it('of two places never take part at the same colour', () => {
    for (let degrees = 0; degrees < 360; degrees += 0.5) {
      const present = EIGHT.inks.filter((ink) => extraShare(ink, ...hue(degrees, 80)) > 0);
      expect(new Set(present.map(({ between }) => between.join())).size).toBeLessThanOrEqual(1);
    }
  });

  it('that have the hue of one of the three are refused', () => {
    expect(device([240, 350, 90, 0, 247])).toEqual({ ink: 4, as: 0 });
    expect(device([240, 350, 90, 0, 249])).toHaveProperty('inks');
    expect(() => expectedExtraInks(inkProcess(['C', 'M', 'Y', 'O', 'G']))).toThrow(
      'not all of C, M, Y and K',
    );
  });
});
