import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';
import { aimPrimaries, aimsApart } from './aimPrimaries.ts';
import { publishedAims } from './aims.ts';
import type { Aims } from './aims.ts';
import { PUBLISHED_CONDITIONS } from './data/publishedConditions.ts';

const aims = (rows: readonly (readonly [readonly number[], Lab])[]): Aims => ({
  conditions: {},
  device: Float64Array.from(rows.flatMap(([device]) => [...device])),
  xyz: Float64Array.from(rows.flatMap(([, lab]) => [...labToXyz(lab, WHITE_D50_MEASURED)])),
});

describe('primaries of an aim set', () => {
  it.each(PUBLISHED_CONDITIONS.map((condition) => [condition.key, condition] as const))(
    '%s: nine, all given, the paper lightest and black the least colourful solid',
    (_, condition) => {
      const primaries = aimPrimaries(publishedAims(condition));
      expect(primaries.map(({ name }) => name).join(' ')).toBe('paper C M Y K M+Y C+Y C+M C+M+Y');
      expect(primaries.every(({ origin }) => origin === 'given')).toBe(true);
      const chroma = ({ lab }: (typeof primaries)[number]): number => Math.hypot(lab[1], lab[2]);
      expect(Math.max(...primaries.map(({ lab }) => lab[0]))).toBe(primaries[0].lab[0]);
      for (const solid of primaries.slice(1, 4))
        expect(chroma(solid)).toBeGreaterThan(chroma(primaries[4]) + 20);
    },
  );

  it('are only those that it has', () => {
    const few = aims([
      [
        [0, 0, 0, 0],
        [95, 0, -2],
      ],
      [
        [0, 1, 0, 0],
        [48, 74, -3],
      ],
      [
        [0.5, 0, 0, 0],
        [75, -20, -25],
      ],
    ]);
    const primaries = aimPrimaries(few);
    expect(primaries.map(({ name }) => name)).toEqual(['paper', 'M']);
    primaries[1].lab.forEach((value, i) => expect(value).toBeCloseTo([48, 74, -3][i], 9));
  });
});

describe('two aim sets', () => {
  it('are as far apart as the patches in common; others do not count', () => {
    // Grey pairs about L* 50: ΔE00 is ΔL*.
    const one = aims([
      [
        [0, 0, 0, 0],
        [50.5, 0, 0],
      ],
      [
        [0, 0, 0, 1],
        [51.5, 0, 0],
      ],
      [
        [1, 0, 0, 0],
        [54, -36, -49],
      ],
    ]);
    const other = aims([
      [
        [0, 0, 0, 1],
        [48.5, 0, 0],
      ],
      [
        [0, 0, 0, 0],
        [49.5, 0, 0],
      ],
    ]);
    const apart = aimsApart(one, other);
    expect(apart.common).toBe(2);
    expect(apart.mean).toBeCloseTo(2, 9);
    expect(apart.largest).toBeCloseTo(3, 9);
    expect(aimsApart(other, one)).toEqual(apart);
  });

  it('with repeats are compared by the means of these, as reflectance', () => {
    const twice = aims([
      [
        [0, 0, 0, 1],
        [40, 0, 0],
      ],
      [
        [0, 0, 0, 1],
        [60, 0, 0],
      ],
    ]);
    expect(aimsApart(twice, twice)).toEqual({ common: 1, mean: 0, largest: 0 });
  });

  it('with nothing in common are not compared', () => {
    const cyan = aims([
      [
        [1, 0, 0, 0],
        [54, -36, -49],
      ],
    ]);
    const black = aims([
      [
        [0, 0, 0, 1],
        [16, 0, 0],
      ],
    ]);
    expect(aimsApart(cyan, black)).toEqual({ common: 0, mean: 0, largest: 0 });
  });
});
