import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { evaluateSampleProfile, sampleProfile } from './testing/sampleProfile.ts';
import { md5 } from './md5.ts';
import { readIcc } from './readIcc.ts';
import { compileCurve } from './evaluateCurve.ts';
import { multilinearRows } from './clutRows.ts';
import { interpolateTetrahedral } from './interpolateClut.ts';
import { writeIcc } from './writeIcc.ts';

describe('ICC files', () => {
  it.each([2, 4] as const)('are the same after reading and writing, version %i', (version) => {
    const bytes = writeIcc(sampleProfile(version));
    const read = readIcc(bytes);
    expect(read.ok).toBe(true);
    if (!read.ok) return;
    expect(writeIcc(read.value)).toEqual(bytes);
    expect(read.value.tags.get('A2B0')).toBe(read.value.tags.get('A2B1'));
    expect(evaluateSampleProfile(read.value)[0]).toBeCloseTo(100, 2);
  });

  it('keep a date, a signature and numbers as they are', () => {
    const profile = sampleProfile(4);
    const date = { year: 2026, month: 11, day: 29, hour: 14, minute: 5, second: 9 };
    const tags = new Map([
      ...profile.tags,
      ['calt', { type: 'dtim', date }],
      ['tech', { type: 'sig', signature: 'offs' }],
      ['chad', { type: 'sf32', values: [1, 0, 0, 0, 1, 0, 0, 0, -0.5] }],
    ] as const);
    const read = readIcc(writeIcc({ ...profile, tags }));
    expect(read.ok && read.value.tags.get('calt')).toEqual({ type: 'dtim', date });
    expect(read.ok && read.value.tags.get('tech')).toMatchObject({ signature: 'offs' });
    const chad = read.ok ? read.value.tags.get('chad') : undefined;
    expect(chad?.type === 'sf32' && [...chad.values]).toEqual([1, 0, 0, 0, 1, 0, 0, 0, -0.5]);
  });

  it('carry an MD5 id in version 4 only', () => {
    const id = (version: 2 | 4): number =>
      writeIcc(sampleProfile(version))
        .subarray(84, 100)
        .reduce((a, b) => a + b, 0);
    expect(id(2)).toBe(0);
    expect(id(4)).toBeGreaterThan(0);
    const hex = (text: string): string =>
      [...md5(Uint8Array.from(text, (c) => c.charCodeAt(0)))]
        .map((b) => b.toString(16).padStart(2, '0'))
        .join('');
    expect(hex('')).toBe('d41d8cd98f00b204e9800998ecf8427e');
    expect(hex('The quick brown fox jumps over the lazy dog')).toBe('9e107d9d372bb6826bd81d3542a419d6');
  });

  it('keep a description that is not Latin, and read one that has no Unicode part', () => {
    const text = 'Größe Ω 纸';
    const profile = sampleProfile(2);
    const bytes = writeIcc({ ...profile, tags: new Map([['desc', { type: 'desc', text }]]) });
    const descOf = (own: Uint8Array): unknown => {
      const read = readIcc(own);
      return read.ok ? read.value.tags.get('desc') : read.issues;
    };
    expect(descOf(bytes)).toEqual({ type: 'desc', text });
    // A count that the element does not hold leaves the Latin part.
    const at = 128 + 4 + 12 + 8 + 4 + text.length + 1 + 4;
    expect(bytes[at + 3]).toBe(text.length + 1);
    expect(descOf(set(bytes.slice(), at, 0x7f))).toEqual({ type: 'desc', text: 'Größe ? ?' });
    expect(descOf(set(bytes.slice(), at + 3, 0))).toEqual({ type: 'desc', text: 'Größe ? ?' });
  });

  it.each([
    ['a cut file', (b: Uint8Array) => b.subarray(0, b.length - 40), 'icc.truncated'],
    ['a cut header', (b: Uint8Array) => b.subarray(0, 60), 'icc.truncated'],
    ['another file', (b: Uint8Array) => set(b, 36, 0x41), 'icc.not-a-profile'],
    ['an unknown version', (b: Uint8Array) => set(b, 8, 9), 'icc.unknown-version'],
    ['an unknown class', (b: Uint8Array) => set(b, 12, 0x21), 'icc.unknown-class'],
    ['too many tags', (b: Uint8Array) => set(b, 128, 0xff), 'icc.too-many-tags'],
    ['a tag outside the file', (b: Uint8Array) => set(b, 136, 0x7f), 'icc.bad-tag-range'],
  ])('name %s', (_, damage, code) => {
    const read = readIcc(damage(writeIcc(sampleProfile(4)).slice()));
    expect(!read.ok && read.issues[0].code).toBe(code);
  });

  it('never throw and stay within bounds for flipped and cut bytes', () => {
    const random = createRandom(12);
    for (const version of [2, 4] as const) {
      const good = writeIcc(sampleProfile(version));
      for (let round = 0; round < 1500; round++) {
        const bad = good.slice(0, round % 3 === 0 ? random.below(good.length) : good.length);
        for (let k = 0; k < 1 + random.below(4) && bad.length > 0; k++)
          bad[random.below(Math.min(bad.length, 900))] = random.below(256);
        const read = readIcc(bad);
        if (!read.ok) for (const issue of read.issues) expect(issue.code).toMatch(/^icc\./);
      }
    }
  });
});

function set(bytes: Uint8Array, at: number, value: number): Uint8Array {
  bytes[at] = value;
  return bytes;
}

describe('interpolation', () => {
  it('is exact for linear tables and agrees at nodes in both forms', () => {
    const grid = [3, 4, 5];
    const values = new Float64Array(60);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 4; j++)
        for (let k = 0; k < 5; k++) values[(i * 4 + j) * 5 + k] = i / 2 + (2 * j) / 3 - (3 * k) / 4;
    // The same in whole numbers, as tables of files have them.
    const nodes = Uint16Array.from(values, (value) => Math.round(12 * value) + 36);
    const multilinear = multilinearRows({ nodes, grid, outputs: 1, stride: 3 });
    const out = new Float64Array(2);
    const random = createRandom(2);
    for (let n = 0; n < 200; n++) {
      const x = Float64Array.of(random.uniform(), random.uniform(), random.uniform());
      const expected = x[0] + 2 * x[1] - 3 * x[2];
      interpolateTetrahedral(values, grid, 1, x, 0, out, 0);
      multilinear(x, 1);
      out[1] = (x[0] - 36) / 12;
      expect(out[0]).toBeCloseTo(expected, 12);
      expect(out[1]).toBeCloseTo(expected, 12);
    }
    // At the far ends, where no cell follows, and beyond them.
    for (const [x, expected] of [
      [[1, 1, 1], 0],
      [[0, 0, 1], -3],
      [[1, 0, 1], -2],
      [[2, 1.5, -1], 3],
    ] as const) {
      const at = Float64Array.from(x);
      multilinear(at, 1);
      expect((at[0] - 36) / 12).toBeCloseTo(expected, 12);
    }
  });

  it('evaluates all parametric curves at their seams', () => {
    const srgb = compileCurve({
      kind: 'parametric',
      functionType: 3,
      parameters: [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045],
    });
    expect(srgb(0.5)).toBeCloseTo(0.21404, 5);
    expect(srgb(0.02)).toBeCloseTo(0.02 / 12.92, 12);
    expect(compileCurve({ kind: 'gamma', gamma: 2 })(0.5)).toBeCloseTo(0.25, 12);
    expect(
      compileCurve({ kind: 'parametric', functionType: 4, parameters: [1, 1, 0, 0.5, 0.5, 0.1, 0.2] })(0.25),
    ).toBeCloseTo(0.325, 12);
    expect(compileCurve({ kind: 'table', values: Uint16Array.of(0, 65535, 0) })(0.25)).toBeCloseTo(0.5, 12);
  });
});
