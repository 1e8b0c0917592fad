import { describe, expect, it } from 'vitest';
import { unwrap } from '../result.ts';
import { publishedAims } from './aims.ts';
import type { Aims } from './aims.ts';
import { PUBLISHED_CONDITIONS } from './data/publishedConditions.ts';
import { toneAims } from './toneAims.ts';

const PAPER = [80, 84, 70];
const SOLID = [20, 24, 40];
/** Ramps of each ink whose areas by Murray-Davies are 0.4 at 0.25, 0.7 at 0.5 and 0.9 at 0.75. */
const AREAS: readonly (readonly [number, number])[] = [
  [0.25, 0.4],
  [0.5, 0.7],
  [0.75, 0.9],
  [1, 1],
];
function ramps(areas: readonly (readonly [number, number])[] = AREAS): Aims {
  const device = [0, 0, 0, 0];
  const xyz = [...PAPER];
  for (let ink = 0; ink < 4; ink++)
    for (const [tone, area] of areas) {
      device.push(...[0, 1, 2, 3].map((channel) => (channel === ink ? tone : 0)));
      xyz.push(...PAPER.map((value, axis) => value + area * (SOLID[axis] - value)));
    }
  return { conditions: {}, device: Float64Array.from(device), xyz: Float64Array.from(xyz) };
}

describe('tone aims of an aim set', () => {
  it('are the areas of its single-ink patches', () => {
    const inks = unwrap(toneAims(ramps()));
    expect(inks).toHaveLength(4);
    for (const points of inks)
      expect(points.map(({ tone, increase }) => [tone, Number(increase.toFixed(9))])).toEqual([
        [0.25, 0.15],
        [0.5, 0.2],
        [0.75, 0.15],
      ]);
  });

  it('are the published figures where only these are known', () => {
    const [published] = PUBLISHED_CONDITIONS;
    const [cyan] = unwrap(toneAims(publishedAims(published)));
    expect(cyan).toHaveLength(published.tvi.C.length);
    published.tvi.C.forEach(([tone, increase], i) => {
      expect(cyan[i].tone).toBeCloseTo(tone / 100, 12);
      expect(cyan[i].increase).toBeCloseTo(increase / 100, 12);
    });
  });

  it('need paper, solids and three tones of each ink', () => {
    expect(toneAims(ramps(AREAS.slice(1)))).toMatchObject({
      ok: false,
      issues: ['C', 'M', 'Y', 'K'].map((ink) => ({ expected: `the solid and 3 tones of ${ink} alone` })),
    });
    expect(toneAims(ramps(AREAS.slice(0, 3))).ok).toBe(false);
    const { device, ...rest } = ramps();
    const bare = Float64Array.from(device, (value, i) => (i < 4 ? 0.01 : value));
    expect(toneAims({ ...rest, device: bare })).toMatchObject({
      issues: [{ expected: 'a patch of bare paper' }],
    });
  });
});
