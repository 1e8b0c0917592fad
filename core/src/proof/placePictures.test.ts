import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { wrenModel, wrenProfileBytes } from '../../test/wrenProfile.ts';
import { readIcc } from '../icc/readIcc.ts';
import { unwrap } from '../result.ts';
import { placePictures } from './placePictures.ts';

const device = unwrap(readIcc(wrenProfileBytes(4, wrenModel(200))));
const screen = unwrap(readIcc(readFileSync('/usr/share/color/icc/sRGB.icc')));
const picture = (name: string, ...pixels: (readonly number[])[]) => ({
  ...{ name, profile: screen },
  values: Float64Array.from(pixels.flat()),
});

describe('a page of pictures on a device', () => {
  const dull = picture('dull', [0.4, 0.5, 0.45], [0.6, 0.55, 0.5], [0.35, 0.4, 0.42]);
  const loud = picture('loud', [0, 1, 0]);

  it('says of each what it comes to, and of all together by their pixels', () => {
    const placed = unwrap(placePictures(device, [dull, loud]));
    expect(placed.pictures.map(({ name }) => name)).toEqual(['dull', 'loud']);
    const [quiet, far] = placed.pictures;
    expect(quiet.largest).toBeLessThan(2);
    expect(quiet.lost).toEqual([]);
    expect(far.mean).toBeGreaterThan(3);
    expect(far.lost[0]?.share).toBe(1);
    expect(placed.mean).toBeCloseTo((3 * quiet.mean + far.mean) / 4, 12);
    expect(placed.largest).toBe(far.largest);
    expect(placed.over3).toBe(0.25);
    expect(placed.ink).toBeCloseTo((3 * quiet.ink + far.ink) / 4, 12);
    expect(placed.amounts).toHaveLength(3);
    expect(placed.amounts.reduce((a, b) => a + b, 0)).toBeCloseTo(placed.ink, 12);
  });

  it('is refused where a picture has not the channels of its profile, by the name of the picture', () => {
    const grey = { ...dull, name: 'grey.png', values: Float64Array.of(0.5, 0.5) };
    const refused = placePictures(device, [loud, grey]);
    expect(refused).toMatchObject({ ok: false, issues: [{ path: 'grey.png', found: '2 values' }] });
    expect(placePictures(device, [{ ...dull, values: new Float64Array(0) }]).ok).toBe(false);
  });
});
