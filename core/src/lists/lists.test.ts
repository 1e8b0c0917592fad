import { describe, expect, it } from 'vitest';
import { readPatchSet } from '../cgats/patchSetFromCgats.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { readIcc } from '../icc/readIcc.ts';
import type { ListedColour } from '../refine/namedColour.ts';
import { unwrap } from '../result.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { GRID_380_730_10 } from '../spectral/spectralGrid.ts';
import { spectrumLab } from '../spectral/spectrumLab.ts';
import { spotColourToneValue } from '../tone/sctv.ts';
import { wrenModel, wrenProfileBytes } from '../../test/wrenProfile.ts';
import { compareLists } from './compareLists.ts';
import { listText } from './listText.ts';
import { listUnder } from './listUnder.ts';
import { recipesOf } from './recipes.ts';
import { tintLab, tintsOf } from './tints.ts';

const colour = (name: string, l: number, a = 0, b = 0): ListedColour => ({ name, lab: [l, a, b] });
const xyz = (lab: ListedColour['lab']) => labToXyz(lab, WHITE_D50_MEASURED);

/** Reflectance that rises at a wavelength. */
const rising = (atNm: number): ListedColour => {
  const values = Array.from(
    { length: 36 },
    (_, i) => 0.08 + 0.6 / (1 + Math.exp((atNm - 380 - 10 * i) / 12)),
  );
  return {
    name: `rises at ${atNm}`,
    lab: spectrumLab(GRID_380_730_10, values),
    spectrum: { grid: GRID_380_730_10, values },
  };
};

describe('two versions of a list', () => {
  it('tell what is new, what left, and what moved, the farthest first', () => {
    const before = [colour('a', 50), colour('b', 50), colour('gone', 20), colour('steady', 60)];
    const after = [colour('a', 51), colour('b', 55), colour('new', 30), colour('steady', 60.01)];
    const { added, left, moved } = compareLists(before, after);
    expect(added).toEqual(['new']);
    expect(left).toEqual(['gone']);
    expect(moved.map(({ name }) => name)).toEqual(['b', 'a']);
    expect(moved[0].deltaE).toBeCloseTo(deltaE2000([50, 0, 0], [55, 0, 0]), 9);
  });

  it('call what decimals lose the same, and no more', () => {
    const from = [colour('x', 50)];
    expect(compareLists(from, [colour('x', 50.015)]).moved).toHaveLength(0);
    expect(compareLists(from, [colour('x', 50.03)]).moved).toHaveLength(1);
  });

  it('keep colours of one name apart', () => {
    const twice = [colour('x', 20), colour('x', 70)];
    expect(compareLists(twice, twice).moved).toHaveLength(0);
    expect(compareLists(twice, [colour('x', 20)]).left).toEqual(['x (2)']);
  });
});

describe('tints of a solid', () => {
  it.each([0.25, 0.5, 0.75, 1])('of %d have that spot colour tone value', (share) => {
    const paper = [94, 0.5, -2] as const;
    const solid = [45, 60, 30] as const;
    const tint = tintLab(paper, solid, share);
    expect(spotColourToneValue(xyz(tint), xyz(paper), xyz(solid))).toBeCloseTo(share, 9);
  });

  it('are the paper without ink', () =>
    tintLab([94, 0.5, -2], [45, 60, 30], 0).forEach((value, i) =>
      expect(value).toBeCloseTo([94, 0.5, -2][i], 9),
    ));

  it('of a colour that prints come out, each paler than the one before', () => {
    const profile = unwrap(readIcc(wrenProfileBytes(4, wrenModel(200))));
    const [[quarter, half, three]] = unwrap(tintsOf(profile, [colour('red', 50, 45, 25)]));
    for (const { deltaE } of [quarter, half, three]) expect(deltaE).toBeLessThan(1);
    expect(quarter.printed[0]).toBeGreaterThan(half.printed[0]);
    expect(half.printed[0]).toBeGreaterThan(three.printed[0]);
  });
});

describe('recipes', () => {
  it('are looked for where a device has C, M, Y and K only', () => {
    const profile = unwrap(readIcc(wrenProfileBytes(4, wrenModel(200))));
    const made = recipesOf(profile, [50, 0, 0]);
    expect(made.ok ? '' : made.issues[0].found).toBe('3 channels');
  });
});

describe('a list in another light', () => {
  it('moves where it has spectra, not at all in D50, and says nothing of the rest', () => {
    const colours = [rising(500), rising(580), colour('without', 50)];
    const [first, second, third] = listUnder(colours, { light: tableIlluminant('A'), observer: '2deg' });
    expect(first).toBeGreaterThan(1);
    expect(second).toBeGreaterThan(0.5);
    expect(third).toBeNull();
    expect(listUnder(colours, { light: tableIlluminant('D50'), observer: '2deg' })[0]).toBeLessThan(1e-9);
  });
});

describe('a list as CGATS', () => {
  it('reads back with names, colours and spectra', () => {
    const colours = [rising(500), rising(580)];
    const read = unwrap(readPatchSet(listText('Ours', colours)));
    expect(read.names).toEqual(['rises at 500', 'rises at 580']);
    expect(read.spectra?.grid).toEqual(GRID_380_730_10);
    expect(read.spectra?.values[35]).toBeCloseTo(colours[0].spectrum?.values[35] ?? NaN, 5);
    expect(read.lab?.[3]).toBeCloseTo(colours[1].lab[0], 2);
  });

  it('has no spectra where one colour has none, or other wavelengths', () => {
    const spectraOf = (colours: ListedColour[]) => unwrap(readPatchSet(listText('Ours', colours))).spectra;
    expect(spectraOf([rising(500), colour('x', 50)])).toBeUndefined();
    const coarse = {
      ...rising(500),
      spectrum: { grid: { startNm: 400, stepNm: 20, count: 16 }, values: Array<number>(16).fill(0.5) },
    };
    expect(spectraOf([rising(500), coarse])).toBeUndefined();
  });
});
