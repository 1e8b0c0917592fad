import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { createRandom } from '@melto/core/numerics/random';
import { unwrap } from '@melto/core/result';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { proofPicture } from './proofPicture.ts';

const RGB = Uint8Array.from({ length: 6 * 4 * 3 }, (_, i) => (i * 37) % 256);
const raw = { raw: { width: 6, height: 4, channels: 3 } } as const;
const WIDE = '/usr/share/color/icc/compatibleWithAdobeRGB1998.icc';

describe('a picture for a proof', () => {
  it('keeps the values of its file, and hands out the profile that they are meant by', async () => {
    const plain = unwrap(await proofPicture(await sharp(RGB, raw).png().toBuffer(), 100));
    expect(plain).toMatchObject({ width: 6, height: 4, channels: 3, bits: 8, icc: undefined, notes: [] });
    expect([...plain.values]).toEqual([...RGB]);
    const tagged = await sharp(RGB, raw).withIccProfile(WIDE).tiff().toBuffer();
    const stands = await sharp(tagged, { ignoreIcc: true }).raw().toBuffer();
    const read = unwrap(await proofPicture(tagged, 100));
    expect([...read.values]).toEqual([...stands]);
    expect(read.icc?.length).toBe(readFileSync(WIDE).length);
  });

  it('takes inks as they print, grey as one channel, and 16 bits', async () => {
    const inks = Uint8Array.from({ length: 6 * 4 * 4 }, (_, i) => (i * 29) % 256);
    const tiff = deviceTiff(inks, { width: 6, height: 4, channels: 4 }, 100);
    const read = unwrap(await proofPicture(tiff, 100));
    expect(read).toMatchObject({ channels: 4, width: 6, height: 4 });
    expect([...read.values]).toEqual([...inks]);
    const grey = await sharp(RGB.slice(0, 24), { raw: { width: 6, height: 4, channels: 1 } })
      .toColourspace('b-w')
      .png()
      .toBuffer();
    expect(unwrap(await proofPicture(grey, 100))).toMatchObject({ channels: 1 });
    const deep = await sharp(
      Uint16Array.from(RGB, (value) => 257 * value),
      raw,
    )
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    const sixteen = unwrap(await proofPicture(deep, 100));
    expect(sixteen.bits).toBe(16);
    sixteen.values.forEach((value, i) => expect(Math.abs(value - RGB[i])).toBeLessThanOrEqual(1));
  });

  it('of every kind is written and read again, with its profile to the last byte', async () => {
    const profile = readFileSync(WIDE);
    for (const channels of [1, 3, 4] as const) {
      const values = Uint8Array.from({ length: 6 * 4 * channels }, (_, i) => (i * 31) % 256);
      const size = { width: 6, height: 4, channels };
      const tagged = unwrap(await proofPicture(deviceTiff(values, size, 100, profile), 100));
      expect(tagged.channels).toBe(channels);
      expect([...tagged.values]).toEqual([...values]);
      expect([...(tagged.icc ?? [])]).toEqual([...profile]);
      expect(unwrap(await proofPicture(deviceTiff(values, size, 100), 100)).icc).toBeUndefined();
    }
    expect(() => deviceTiff(RGB, { width: 5, height: 4, channels: 3 }, 100)).toThrow(/72 bytes for 5 × 4/);
  });

  it('is read in its 16 bits where they are asked for', async () => {
    const values = Uint16Array.from({ length: 72 }, (_, i) => (i * 911) % 65536);
    const png = await sharp(values, raw).toColourspace('rgb16').png().toBuffer();
    const read = unwrap(await proofPicture(png, 100, true));
    expect(read.values).toBeInstanceOf(Uint16Array);
    expect(read.bits).toBe(16);
    // Eight bits stay eight.
    const eight = unwrap(await proofPicture(await sharp(RGB, raw).png().toBuffer(), 100, true));
    expect(eight.values).toBeInstanceOf(Uint8Array);
  });

  it('is made smaller, turned as its camera says, and shown on white where it is transparent', async () => {
    const large = await sharp({ create: { width: 400, height: 200, channels: 3, background: '#336699' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const read = unwrap(await proofPicture(large, 100));
    expect(read).toMatchObject({ width: 50, height: 100, fullWidth: 200, fullHeight: 400 });
    const clear = await sharp({
      create: { width: 4, height: 4, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .png()
      .toBuffer();
    const shown = unwrap(await proofPicture(clear, 100));
    expect([...shown.values.subarray(0, 3)]).toEqual([255, 255, 255]);
    expect(shown.notes).toHaveLength(1);
  });

  it.each([
    ['text', Buffer.from('no picture at all')],
    ['an empty file', Buffer.alloc(0)],
    ['half a PNG', Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAAB', 'base64')],
    ['a drawing', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')],
  ])('is refused in words where it is %s', async (_, file) => {
    const read = await proofPicture(file, 100);
    expect(read.ok).toBe(false);
    expect(!read.ok && read.issues[0].expected).toContain('TIFF, PNG or JPEG');
  });

  it('is refused where its head claims more pixels than a picture has', async () => {
    const png = await sharp(RGB, raw).png().toBuffer();
    png.writeUInt32BE(100_000, 16);
    png.writeUInt32BE(100_000, 20);
    expect((await proofPicture(png, 100)).ok).toBe(false);
  });

  it('of damaged bytes is read or refused, in sixty ways', async () => {
    const image = sharp(RGB, raw);
    const whole = [
      await image.clone().png().toBuffer(),
      await image.clone().jpeg().toBuffer(),
      deviceTiff(RGB, { width: 6, height: 4, channels: 3 }, 100, readFileSync(WIDE)),
    ];
    const random = createRandom(61);
    let refused = 0;
    for (let kind = 0; kind < 60; kind++) {
      const file = Buffer.from(whole[kind % 3]);
      const cut = kind % 5 === 4 ? file.subarray(0, Math.floor(random.uniform() * file.length)) : file;
      for (let i = 0; i <= kind % 4; i++)
        cut[Math.floor(random.uniform() * Math.min(120, cut.length))] = Math.floor(256 * random.uniform());
      const read = await proofPicture(cut, 100);
      if (read.ok)
        expect(read.value.values.length).toBe(read.value.width * read.value.height * read.value.channels);
      else {
        refused++;
        expect(read.issues).toHaveLength(1);
      }
    }
    expect(refused).toBeGreaterThan(15);
  });
});
