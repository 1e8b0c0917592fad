import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ByteReader, IccDamage } from './byteReader.ts';
import { ByteWriter } from './byteWriter.ts';
import { labDecoder, labEncoder } from './pcsEncoding.ts';
import { readLut } from './readLut.ts';

const written = (write: (writer: ByteWriter) => void): ByteReader => {
  const writer = new ByteWriter();
  write(writer);
  return new ByteReader(writer.toBytes(), 'tag');
};
const damage = (work: () => unknown): IccDamage['issue'] => {
  try {
    work();
  } catch (error) {
    if (error instanceof IccDamage) return error.issue;
    throw error;
  }
  throw new Error('nothing was found wrong');
};

describe('bytes of an ICC file', () => {
  it('are big-endian', () => {
    const writer = new ByteWriter();
    writer.u8(0x01);
    writer.u16(0x0203);
    writer.u32(0x04050607);
    expect([...writer.toBytes()]).toEqual([1, 2, 3, 4, 5, 6, 7]);
  });

  it('come back as they were written', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 255 }),
        fc.integer({ min: 0, max: 65535 }),
        fc.integer({ min: 0, max: 2 ** 32 - 1 }),
        fc.array(fc.integer({ min: 0, max: 65535 }), { maxLength: 2000 }),
        (a, b, c, list) => {
          const reader = written((writer) => {
            writer.u8(a);
            writer.u16(b);
            writer.u32(c);
            writer.u16Array(list);
          });
          expect([reader.u8('a'), reader.u16('b'), reader.u32('c')]).toEqual([a, b, c]);
          expect([...reader.u16Array(list.length, 'list')]).toEqual(list);
          expect(reader.remaining).toBe(0);
        },
      ),
      { numRuns: 60, seed: 5 },
    );
  });

  it('of s15Fixed16 numbers are within half a step', () => {
    for (const value of [0, 1, -1, 0.9642, 32767.5, -32768, 1 / 3, -0.00001]) {
      const reader = written((writer) => writer.s15Fixed16(value));
      expect(Math.abs(reader.s15Fixed16('value') - value)).toBeLessThanOrEqual(0.5 / 65536);
    }
    // D50 of the ICC as it stands in every profile.
    const d50 = new ByteWriter();
    for (const value of [0.9642, 1, 0.8249]) d50.s15Fixed16(value);
    expect(Buffer.from(d50.toBytes()).toString('hex')).toBe('0000f6d6000100000000d32d');
  });

  it('of text are padded, cut, and Latin-1 only', () => {
    const reader = written((writer) => {
      writer.signature('abc');
      writer.ascii('Heron', 8);
      writer.ascii('a longer text', 4);
      writer.ascii('µ→', 2);
      writer.utf16('ΔE');
    });
    expect(reader.signature('s')).toBe('abc ');
    expect(reader.ascii(8, 't')).toBe('Heron');
    expect(reader.ascii(4, 't')).toBe('a lo');
    expect(reader.ascii(2, 't')).toBe('µ?');
    expect(reader.utf16(4, 'u')).toBe('ΔE');
  });

  it('are aligned to four, and a length can be filled in later', () => {
    const writer = new ByteWriter();
    writer.u32(0);
    writer.raw(Uint8Array.of(9, 9, 9));
    writer.align();
    writer.align();
    expect(writer.length).toBe(8);
    writer.setU32(0, writer.length);
    expect([...writer.toBytes()]).toEqual([0, 0, 0, 8, 9, 9, 9, 0]);
  });

  it('grow past what was there at first', () => {
    const reader = written((writer) => {
      for (let i = 0; i < 3000; i++) writer.u16(i);
    });
    expect(reader.remaining).toBe(6000);
    reader.seek(5998, 'end');
    expect(reader.u16('last')).toBe(2999);
  });
});

describe('damage', () => {
  const bytes = Uint8Array.of(1, 2, 3, 4, 5);

  it.each([
    ['u16', (reader: ByteReader) => reader.u16('field')],
    ['u32', (reader: ByteReader) => reader.u32('field')],
    ['s15Fixed16', (reader: ByteReader) => reader.s15Fixed16('field')],
    ['signature', (reader: ByteReader) => reader.signature('field')],
    ['u8Array', (reader: ByteReader) => reader.u8Array(2, 'field')],
    ['u16Array', (reader: ByteReader) => reader.u16Array(1, 'field')],
    ['ascii', (reader: ByteReader) => reader.ascii(2, 'field')],
    ['skip', (reader: ByteReader) => reader.skip(2, 'field')],
  ])('%s past the end names field, offset and both sizes, and moves nothing', (_, read) => {
    const reader = new ByteReader(bytes, 'A2B0', 100);
    reader.seek(4, 'start');
    const issue = damage(() => read(reader));
    expect(issue).toMatchObject({ code: 'icc.truncated', path: 'A2B0 field', offset: 104, found: '1' });
    expect(reader.position).toBe(4);
  });

  it('of a count that no file can hold is found before anything is allocated', () => {
    const reader = new ByteReader(bytes, 'clut');
    for (const count of [2 ** 31, 2 ** 40, Number.MAX_SAFE_INTEGER])
      expect(damage(() => reader.u16Array(count, 'grid')).code).toBe('icc.truncated');
  });

  it('of an offset outside of the span is told apart', () => {
    const reader = new ByteReader(bytes, 'tag table');
    for (const offset of [-1, 6, 2 ** 32 - 1])
      expect(damage(() => reader.seek(offset, 'offset'))).toMatchObject({
        code: 'icc.bad-offset',
        found: String(offset),
      });
    reader.seek(5, 'end');
    expect(reader.remaining).toBe(0);
  });
});

describe('a table of eight bits', () => {
  it('reads its curves in 16 bits and its colours as they stand', () => {
    const reader = written((writer) => {
      for (const value of [1, 1, 2, 0]) writer.u8(value);
      for (const value of [1, 0, 0, 0, 1, 0, 0, 0, 1]) writer.s15Fixed16(value);
      for (let i = 0; i < 256; i++) writer.u8(i);
      for (const value of [10, 200]) writer.u8(value);
      for (let i = 0; i < 256; i++) writer.u8(255 - i);
    });
    const { inputTables, clut, outputTables } = readLut(reader, 'lut8');
    expect([...(inputTables[0] ?? [])].filter((_, i) => i % 85 === 0)).toEqual([0, 21845, 43690, 65535]);
    expect(outputTables[0]?.[0]).toBe(65535);
    expect([...clut.values]).toEqual([10, 200]);
  });
});

describe('Lab in a table', () => {
  it.each([['lut16'], ['mBA']] as const)('of %s stays within what can be written', (type) => {
    const tag = { type } as Parameters<typeof labEncoder>[0];
    for (const lab of [
      [140, 300, 300],
      [-20, -300, -300],
    ] as const) {
      const row = Float64Array.from(lab);
      labEncoder(tag, 3)(row, 1);
      expect([...row]).toEqual(lab[0] > 0 ? [1, 1, 1] : [0, 0, 0]);
    }
    const row = Float64Array.of(50, -12, 30);
    labEncoder(tag, 3)(row, 1);
    labDecoder(tag, 3)(row, 1);
    row.forEach((value, i) => expect(value).toBeCloseTo([50, -12, 30][i], 9));
  });
});
