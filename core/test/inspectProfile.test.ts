import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { IccProfile, IccTag, LutAbTag, LutTag } from '@melto/core/icc/iccTypes';
import { compareBodies } from '@melto/core/gamut/compareBodies';
import { profileBody } from '@melto/core/gamut/profileBody';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { softProof } from '@melto/core/proof/softProof';
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

const CHOICE = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true } as const;

describe('a damaged profile', () => {
  it('is refused in words, or looked into: nothing of it throws or hangs', () => {
    const bytes = writeIcc(own);
    const random = createRandom(60);
    let read = 0;
    for (let kind = 0; kind < 24; kind++) {
      const damaged = bytes.slice(
        0,
        kind % 4 === 3 ? Math.floor(random.uniform() * bytes.length) : bytes.length,
      );
      // Header and tag table are worth more of the damage than the values of tables.
      const within = kind % 2 === 0 ? 400 : damaged.length;
      for (let i = 0; i < 1 + (kind % 5); i++)
        damaged[Math.floor(random.uniform() * Math.min(within, damaged.length))] = Math.floor(
          256 * random.uniform(),
        );
      const found = readIcc(damaged);
      if (!found.ok) {
        expect(found.issues.length).toBeGreaterThan(0);
        continue;
      }
      read++;
      expect(Array.isArray(inspectProfile(found.value).remarks)).toBe(true);
      const body = profileBody(found.value, 'damaged');
      if (!body.ok) expect(body.issues[0].expected).not.toBe('');
      else {
        const compared = compareBodies(body.value.body, body.value.body);
        if (compared.ok) expect(compared.value.a.volume).toBeGreaterThanOrEqual(0);
      }
      softProof(found.value, own, CHOICE);
      softProof(own, found.value, CHOICE);
    }
    expect(read).toBeGreaterThan(4);
  });
});
