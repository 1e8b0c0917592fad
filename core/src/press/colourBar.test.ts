import { describe, expect, it } from 'vitest';
import { unwrap } from '../result.ts';
import { barPatchWords, designBar, patchesOf } from './colourBar.ts';
import { processUnit } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';

const KCMY = (['K', 'C', 'M', 'Y'] as const).map(processUnit);
const SHAPE = { zones: 12, zoneMm: 32, patchMm: 5 };

describe('a colour bar', () => {
  const bar = unwrap(designBar(KCMY, SHAPE));

  it('has the solids of all units in every zone, and fills the room that is left', () => {
    expect(bar.patches).toHaveLength(72);
    for (let unit = 0; unit < 4; unit++)
      expect(patchesOf(bar, 'solid', unit).map((at) => bar.patches[at].zone)).toEqual(
        Array.from({ length: 12 }, (_, zone) => zone),
      );
    for (const [kind, count] of [
      ['paper', 1],
      ['tint', 12],
      ['grey', 3],
      ['overprint', 3],
    ] as const)
      expect(patchesOf(bar, kind).length, kind).toBeGreaterThanOrEqual(count);
    expect(bar.patches.map(({ zone }) => zone)).toEqual(
      Array.from({ length: 72 }, (_, at) => Math.floor(at / 6)),
    );
  });

  it('names its patches', () => {
    const words = bar.patches.map((patch) => barPatchWords(KCMY, patch));
    for (const each of ['paper', 'K solid', 'C 50 %', 'C + M', 'grey C 50 M 40 Y 40', 'K lines across'])
      expect(words).toContain(each);
  });

  it('leaves out what the inks cannot make', () => {
    const two = unwrap(designBar([processUnit('K'), { ink: 'Marsh Green', filter: 'red' }], SHAPE));
    expect(patchesOf(two, 'grey')).toEqual([]);
    expect(patchesOf(two, 'overprint')).toEqual([]);
    expect(
      two.patches.map((patch) =>
        barPatchWords(
          two.patches.length > 0 ? [processUnit('K'), { ink: 'Marsh Green', filter: 'red' }] : [],
          patch,
        ),
      ),
    ).toContain('Marsh Green 50 %');
  });

  it('is refused where a zone has no room for the solids, by a hair', () => {
    expect(designBar(KCMY, { ...SHAPE, zoneMm: 20 }).ok).toBe(true);
    expect(designBar(KCMY, { ...SHAPE, zoneMm: 19.9 })).toMatchObject({
      ok: false,
      issues: [{ code: 'bar.room' }],
    });
  });

  it.each([
    ['zones', 0],
    ['zones', 61],
    ['zones', 1.5],
    ['zoneMm', 14.9],
    ['zoneMm', 100.1],
    ['patchMm', 2.9],
    ['patchMm', 15.1],
    ['patchMm', NaN],
  ])('is refused with %s of %d', (path, value) =>
    expect(designBar([processUnit('K')] as PressUnit[], { ...SHAPE, [path]: value })).toMatchObject({
      ok: false,
      issues: [{ path }],
    }),
  );
});
