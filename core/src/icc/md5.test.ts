import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { md5 } from './md5.ts';

const hex = (text: string): string => Buffer.from(md5(new TextEncoder().encode(text))).toString('hex');

describe('MD5', () => {
  // RFC 1321, A.5
  it.each([
    ['', 'd41d8cd98f00b204e9800998ecf8427e'],
    ['a', '0cc175b9c0f1b6a831c399e269772661'],
    ['abc', '900150983cd24fb0d6963f7d28e17f72'],
    ['message digest', 'f96b697d7cb7938d525a2f31aaf161d0'],
    ['abcdefghijklmnopqrstuvwxyz', 'c3fcd3d76192e4007dfb496cca67e13b'],
    ['ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789', 'd174ab98d277d9f5a5611c2c9f419d9f'],
    ['1234567890'.repeat(8), '57edf4a22be3c955ac49da2e2107b67a'],
  ])('of "%s" is the published one', (text, digest) => expect(hex(text)).toBe(digest));

  it('agrees with the platform over every length around a block', () => {
    for (let length = 0; length < 200; length++) {
      const bytes = Uint8Array.from({ length }, (_, i) => (37 * i + length) & 255);
      expect(Buffer.from(md5(bytes)).toString('hex')).toBe(createHash('md5').update(bytes).digest('hex'));
    }
  });
});
