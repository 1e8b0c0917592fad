import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { unwrap } from '@melto/core/result';
import { keptPicture } from './keptPicture.ts';

const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#336699' } });

describe('a picture that is kept', () => {
  it.each(['png', 'jpeg', 'webp', 'gif', 'tiff'] as const)('is drawn anew from %s', async (format) => {
    const kept = unwrap(await keptPicture(await plain(30, 20).toFormat(format).toBuffer()));
    expect([kept.width, kept.height]).toEqual([30, 20]);
    const { format: own } = await sharp(kept.png).metadata();
    expect(own).toBe('png');
    const { data } = await sharp(kept.png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    [0x33, 0x66, 0x99].forEach((level, i) => expect(Math.abs(data[i] - level)).toBeLessThan(5));
  });

  it('is no larger than can be read, turned as it was taken, and tells nothing of its camera', async () => {
    const wide = unwrap(await keptPicture(await plain(1601, 400).png().toBuffer()));
    expect([wide.width, wide.height]).toEqual([1600, 400]);
    const turned = await plain(30, 20)
      .withExif({ IFD0: { Artist: 'Ines Marlow' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const kept = unwrap(await keptPicture(turned));
    expect([kept.width, kept.height]).toEqual([20, 30]);
    expect((await sharp(kept.png).metadata()).exif).toBeUndefined();
    expect(unwrap(await keptPicture(turned, 15)).height).toBe(15);
  });

  it('is none of a drawing, of words, of half a file, or of too many pixels', async () => {
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
    const half = (await plain(300, 200).png().toBuffer()).subarray(0, 200);
    const bomb = await plain(8000, 7000).png({ compressionLevel: 9 }).toBuffer();
    for (const file of [svg, Buffer.from('%PDF-1.7'), Buffer.alloc(0), half, bomb])
      expect(await keptPicture(file)).toMatchObject({ ok: false, issues: [{ code: 'picture.format' }] });
  });
});
