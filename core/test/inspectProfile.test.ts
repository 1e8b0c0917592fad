import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { IccProfile, IccTag, LutAbTag, LutTag } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import { unwrap } from '@melto/core/result';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const wren = wrenModel();
let own: IccProfile;

beforeAll(() => {
  own = unwrap(readIcc(wrenProfileBytes(2, wren)));
});

const withTags = (change: (tags: Map<string, IccTag>) => void): IccProfile => {
  const tags = new Map(own.tags);
  change(tags);
  return { ...own, tags };
};
const remarks = (change: (tags: Map<string, IccTag>) => void): string =>
  inspectProfile(withTags(change)).remarks.join(' ');

/** A table whose values are changed by their place. */
function changed(
  tag: IccTag | undefined,
  change: (value: number, place: number) => number,
): LutTag | LutAbTag {
  if (tag === undefined || !('clut' in tag) || tag.clut === undefined) throw new Error('no table');
  const values = tag.clut.values.map(change) as Uint16Array;
  return { ...tag, clut: { ...tag.clut, values } } as LutTag;
}

describe('the inspection of a profile', () => {
  it('tells what one of Melto is, and has nothing against it', () => {
    const found = inspectProfile(own);
    expect(found).toMatchObject({ version: '2.4', kind: 'output', colourSpace: 'RGB', connection: 'Lab' });
    expect(found.intents).toEqual(['perceptual', 'relative colorimetric', 'saturation']);
    expect(found.roundTrip?.mean).toBeLessThan(0.5);
    expect(found.tags.find(({ signature }) => signature === 'B2A1')?.says).toMatch(
      /3 to 3 channels, table of/,
    );
    expect(found.remarks).toEqual([]);
  });

  it('of a working space has no figures of a print', () => {
    const srgb = inspectProfile(unwrap(readIcc(readFileSync('/usr/share/color/icc/sRGB.icc'))));
    expect(srgb.roundTrip).toBeUndefined();
    expect(srgb).toMatchObject({ kind: 'screen or working space', remarks: [] });
  });

  it.each([
    [
      'no way from Lab',
      (tags: Map<string, IccTag>) => [0, 1, 2].forEach((i) => tags.delete(`B2A${i}`)),
      /nothing can be printed/,
    ],
    [
      'a table one way only',
      (tags: Map<string, IccTag>) => void tags.delete('A2B2'),
      /saturation table leads one way only/,
    ],
    [
      'an intent of none',
      (tags: Map<string, IccTag>) => ['A2B2', 'B2A2'].forEach((name) => tags.delete(name)),
      /no table of its own for the saturation intent/,
    ],
    ['no gamut tag', (tags: Map<string, IccTag>) => void tags.delete('gamt'), /no gamut tag/],
    ['no white', (tags: Map<string, IccTag>) => void tags.delete('wtpt'), /does not tell the white/],
    ['no description', (tags: Map<string, IccTag>) => void tags.delete('desc'), /no description/],
    [
      'tables that do not fit',
      (tags: Map<string, IccTag>) =>
        void tags.set(
          'B2A1',
          changed(tags.get('B2A1'), (value) => Math.round(65535 * (value / 65535) ** 1.25)),
        ),
      /do not fit each other/,
    ],
    [
      'paper with a tint',
      (tags: Map<string, IccTag>) =>
        void tags.set(
          'A2B1',
          changed(tags.get('A2B1'), (value, i) => (i % 3 === 0 ? 0.93 * value : value)),
        ),
      /not white/,
    ],
    [
      'greys with a cast',
      (tags: Map<string, IccTag>) =>
        void tags.set(
          'B2A1',
          changed(tags.get('B2A1'), (value, i) => (i % 3 === 2 ? 0.85 * value : value)),
        ),
      /have a cast/,
    ],
  ])('says that it has %s', (_, change, words) => {
    expect(remarks(change)).toMatch(words);
  });

  it('warns of version 4 where old software is', () => {
    const four = unwrap(readIcc(wrenProfileBytes(4, wren)));
    expect(inspectProfile(four).remarks).toEqual([expect.stringMatching(/version 2 only/)]);
  });
});
