import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import type { IccProfile, IccTag, LutAbTag } from '@melto/core/icc/iccTypes';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { profileText } from '@melto/core/icc/profileText';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { otherVersion } from '@melto/core/profile/otherVersion';
import { deviceSlice, labSlice, SLICE_AB } from '@melto/core/profile/tableSlice';
import { issueText, unwrap } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';
import { transicc } from './transicc.ts';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const own = new Map<2 | 4, IccProfile>();
let folder = '';

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-version-'));
  for (const version of [2, 4] as const)
    own.set(version, unwrap(readIcc(wrenProfileBytes(version, wrenModel()))));
});

afterAll(() => rmSync(folder, { recursive: true }));

const of = (version: 2 | 4): IccProfile => own.get(version) as IccProfile;
const changed = (version: 2 | 4, change: (tags: Map<string, IccTag>) => void): IccProfile => {
  const tags = new Map(of(version).tags);
  change(tags);
  return { ...of(version), tags };
};

/** By LittleCMS, from Lab to the device or back. */
function byLittleCms(profile: IccProfile, rows: Float64Array, intent: number, back: boolean): Float64Array {
  const path = join(folder, 'own.icc');
  writeFileSync(path, writeIcc(profile));
  return transicc(rows, 3, [`-t${intent}`, ...(back ? [`-i${path}`, '-o*Lab4'] : ['-i*Lab4', `-o${path}`])]);
}

const random = createRandom(31);
const rgb = Float64Array.from({ length: 3 * 1500 }, () => 255 * random.uniform());
const lab = Float64Array.from({ length: 3 * 1500 }, (_, i) =>
  i % 3 === 0 ? 100 * random.uniform() : 120 * (random.uniform() - 0.5),
);

describe('a profile in the other version', () => {
  it.each([
    [4, 2],
    [2, 4],
  ] as const)('from %i to %i says the same to LittleCMS, by every intent', (from, to) => {
    const made = unwrap(readIcc(writeIcc(unwrap(otherVersion(of(from), to)))));
    expect(made.header.version.major).toBe(to);
    for (const intent of [0, 1, 2]) {
      const mapped = intent !== 1;
      const [a, b] = [of(from), made].map((profile) => byLittleCms(profile, rgb, intent, true));
      const there = summariseErrors(deltaE2000Rows(a, b));
      // A mapped table has nodes at other colours: what lies between them differs by what interpolation costs.
      expect(there.mean).toBeLessThan(mapped ? 0.1 : 0.002);
      expect(there.largest).toBeLessThan(mapped ? 0.9 : 0.006);
      const printed = [of(from), made].map((profile) =>
        byLittleCms(of(2), byLittleCms(profile, lab, intent, false), 1, true),
      );
      const back = summariseErrors(deltaE2000Rows(printed[0], printed[1]));
      expect(back.mean).toBeLessThan(mapped ? 0.12 : 0.005);
      expect(back.p95).toBeLessThan(mapped ? 0.3 : 0.02);
    }
  });

  it('keeps the colorimetric tables of version 2 to the bit, and names in the form of either', () => {
    const later = unwrap(otherVersion(of(2), 4));
    expect(later.tags.get('A2B1')).toBe(of(2).tags.get('A2B1'));
    expect(later.tags.get('B2A1')).toBe(of(2).tags.get('B2A1'));
    expect(later.tags.get('desc')?.type).toBe('mluc');
    expect(later.tags.get('targ')?.type).toBe('text');
    expect(later.tags.has('chad')).toBe(true);
    const earlier = unwrap(otherVersion(of(4), 2));
    expect(earlier.tags.get('desc')?.type).toBe('desc');
    expect(earlier.tags.has('chad')).toBe(false);
    expect(profileText(earlier, 'desc')).toBe(profileText(of(4), 'desc'));
    expect(earlier.tags.get('A2B1')?.type).toBe('lut16');
  });

  it('gives a table that all intents share a black of its own for each, and shares the rest', () => {
    const one = changed(2, (tags) => {
      for (const i of [0, 2]) {
        tags.set(`A2B${i}`, tags.get('A2B1') as IccTag);
        tags.set(`B2A${i}`, tags.get('B2A1') as IccTag);
      }
    });
    const made = unwrap(otherVersion(one, 4));
    expect(made.tags.get('A2B1')).toBe(one.tags.get('A2B1'));
    expect(made.tags.get('A2B0')).not.toBe(made.tags.get('A2B1'));
    // The black of the device is that of the reference medium, L* 3.14, in its perceptual table.
    const black = byLittleCms(made, Float64Array.of(0, 0, 0), 0, true);
    expect(black[0]).toBeGreaterThan(-0.3);
    expect(black[0]).toBeLessThan(0.3);
  });

  it('takes curves at either end of a table with it', () => {
    const bent: IccTag = {
      ...(of(4).tags.get('B2A1') as LutAbTag),
      aCurves: [{ kind: 'gamma', gamma: 1.25 }, { kind: 'identity' }, { kind: 'gamma', gamma: 1.125 }],
    };
    const ahead: IccTag = {
      ...(of(4).tags.get('A2B1') as LutAbTag),
      aCurves: [{ kind: 'gamma', gamma: 1.5 }, { kind: 'identity' }, { kind: 'identity' }],
      bCurves: [{ kind: 'gamma', gamma: 1.125 }, { kind: 'identity' }, { kind: 'identity' }],
    };
    const before = changed(4, (tags) => tags.set('B2A1', bent).set('A2B1', ahead));
    const after = unwrap(otherVersion(before, 2));
    const [a, b] = [before, after].map((profile) => byLittleCms(profile, rgb, 1, true));
    const errors = summariseErrors(deltaE2000Rows(a, b));
    expect(errors.largest).toBeLessThan(0.05);
    expect(errors.mean).toBeLessThan(0.01);
    const [c, d] = [before, after].map((profile) =>
      transformed(unwrap(labToDevice(profile, 'relative')), lab),
    );
    expect(Math.max(...c.map((value, i) => Math.abs(value - d[i])))).toBeLessThan(0.0005);
    const plain = transformed(unwrap(labToDevice(of(4), 'relative')), lab);
    expect(Math.max(...c.map((value, i) => Math.abs(value - plain[i])))).toBeGreaterThan(0.03);
  });

  it('is refused in a sentence where the other version cannot hold it', () => {
    const words = (profile: IccProfile, version: 2 | 4): string => {
      const made = otherVersion(profile, version);
      return made.ok ? '' : made.issues.map(issueText).join('; ');
    };
    expect(words(of(2), 2)).toBe('version: found version 2, expected another version');
    expect(words({ ...of(2), header: { ...of(2).header, version: { major: 5, minor: 0 } } }, 4)).toContain(
      '2 or 4',
    );
    expect(words({ ...of(2), header: { ...of(2).header, deviceClass: 'mntr' } }, 4)).toContain(
      'expected an output profile of Lab',
    );
    expect(
      words(
        changed(2, (tags) => tags.delete('wtpt')),
        4,
      ),
    ).toContain('expected the white of the paper');
    const table = of(4).tags.get('B2A0') as LutAbTag;
    const withTable = (tag: LutAbTag) => changed(4, (tags) => tags.set('B2A0', tag));
    expect(words(withTable({ ...table, clut: undefined }), 2)).toContain(
      'B2A0: found none, expected a table',
    );
    const matrix = [1, 0, 0.1, 0, 1, 0, 0, 0, 1, 0, 0, 0];
    expect(words(withTable({ ...table, matrix }), 2)).toContain('B2A0: found a matrix');
    const clut = { grid: [3, 3, 2], outputs: 3, values: new Uint16Array(54) };
    expect(words(withTable({ ...table, clut }), 2)).toContain('B2A0: found 3×3×2');
  });
});

describe('a slice of a table', () => {
  it('from the device has paper in the corner of no ink, and darkens along both channels', () => {
    const { values, side } = unwrap(
      deviceSlice(of(2), 'relative', { across: 0, down: 1, fixed: [0, 0, 1], side: 5 }),
    );
    // R = G = B = 1 is paper: the last place.
    const last = 3 * (side * side - 1);
    for (let c = 0; c < 3; c++) expect(values[last + c]).toBeGreaterThan(0.985);
    const light = (row: number, column: number): number => values[3 * (row * side + column) + 1];
    expect(light(0, 4)).toBeLessThan(light(4, 4) - 0.3);
    expect(values[3 * 4 * side]).toBeLessThan(values[last] - 0.3);
  });

  it('from Lab has what the table gives in its middle, and the sides where they are said to be', () => {
    const slice = unwrap(labSlice(of(2), 'relative', 60, 9));
    const to = unwrap(labToDevice(of(2), 'relative'));
    const at = (row: number, column: number): number[] => [
      ...slice.values.subarray(3 * (row * 9 + column), 3 * (row * 9 + column) + 3),
    ];
    expect(at(4, 4)).toEqual([...transformed(to, [60, 0, 0])]);
    expect(at(0, 4)).toEqual([...transformed(to, [60, 0, SLICE_AB])]);
    expect(at(4, 8)).toEqual([...transformed(to, [60, SLICE_AB, 0])]);
  });

  it('of a table that is not there is refused', () => {
    const less = changed(2, (tags) => {
      tags.delete('B2A2');
      tags.delete('A2B2');
    });
    expect(labSlice(less, 'saturation', 50, 5).ok).toBe(false);
    expect(deviceSlice(less, 'saturation', { across: 0, down: 1, fixed: [0, 0, 0], side: 5 }).ok).toBe(false);
  });
});
