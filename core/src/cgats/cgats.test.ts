import { RGB } from '../device/process.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import type { PatchSet } from './patchSet.ts';
import { readPatchSet } from './patchSetFromCgats.ts';
import { patchSetToCgats } from './patchSetToCgats.ts';
import { readCgats } from './readCgats.ts';
import { parseNumber } from './textScanner.ts';
import { writeCgats } from './writeCgats.ts';

const text = (set: PatchSet): string => writeCgats(patchSetToCgats(set));

function sample(patches: number): PatchSet {
  const random = createRandom(9);
  return {
    ids: Array.from({ length: patches }, (_, i) => `A${i + 1}`),
    names: Array.from({ length: patches }, (_, i) => `patch "${i}" of a set`),
    process: RGB,
    device: Float64Array.from({ length: patches * 3 }, () => Math.round(random.uniform() * 255) / 255),
    xyz: Float64Array.from({ length: patches * 3 }, () => 100 * random.uniform()),
    lab: Float64Array.from({ length: patches * 3 }, () => 100 * random.uniform() - 20),
    spectra: {
      grid: { startNm: 380, stepNm: 10, count: 36 },
      values: Float64Array.from({ length: patches * 36 }, () => random.uniform()),
    },
    layout: {
      page: new Int32Array(patches).fill(1),
      strip: Int32Array.from({ length: patches }, (_, i) => Math.floor(i / 5) + 1),
      place: Int32Array.from({ length: patches }, (_, i) => (i % 5) + 1),
    },
    conditions: { mode: 'M1', filter: 'none', backing: 'white', instrument: 'Strip reader 1' },
    title: 'A test',
    notes: [],
  };
}

const HEAD =
  'CGATS.17\nNUMBER_OF_FIELDS 4\nBEGIN_DATA_FORMAT\nSAMPLE_ID RGB_R RGB_G RGB_B\nEND_DATA_FORMAT\n';

describe('colours and numbers of a table', () => {
  const table = (most: number): string =>
    [
      ...['CGATS.17', 'BEGIN_DATA_FORMAT', 'SAMPLE_ID XYZ_X XYZ_Y XYZ_Z', 'END_DATA_FORMAT', 'BEGIN_DATA'],
      ...[`1 0.9 ${most} 0.8`, '2 0.1 0.2 0.3', 'END_DATA'],
    ].join('\n');

  it('of 0 to 1 are read as per cent, and that is said; others are as they stand', () => {
    const small = readPatchSet(table(1.5));
    expect(small.ok && [...(small.value.xyz ?? [])].map((value) => Number(value.toFixed(6)))).toEqual([
      ...[90, 150, 80],
      ...[10, 20, 30],
    ]);
    expect(small.ok && small.value.notes.join()).toContain('multiplied by 100');
    const plain = readPatchSet(table(1.51));
    expect(plain.ok && plain.value.xyz?.[1]).toBe(1.51);
    expect(plain.ok && plain.value.notes).toEqual([]);
  });

  it.each([
    ['1.00', 1, '0..1'],
    ['1.01', 0.0101, 'per cent'],
    ['100', 1, 'per cent'],
    // Per cent, and more than rounding leaves.
    ['100.5', undefined, undefined],
    ['100.6', 100.6 / 255, undefined],
    ['255', 1, undefined],
  ])('RGB of up to %s counts to what its largest value says', (most, first, note) => {
    const file = [
      ...['CGATS.17', 'BEGIN_DATA_FORMAT', 'SAMPLE_ID RGB_R RGB_G RGB_B XYZ_X XYZ_Y XYZ_Z'],
      ...['END_DATA_FORMAT', 'BEGIN_DATA', `1 ${most} 0 0.5 20 20 20`, '2 0 0 0 2 2 2', 'END_DATA'],
    ].join('\n');
    const read = readPatchSet(file);
    if (first === undefined) return expect(read.ok).toBe(false);
    expect(read.ok && read.value.device?.[0]).toBeCloseTo(first, 9);
    const notes = read.ok ? read.value.notes.join(' ') : '';
    if (note === undefined) expect(notes).toBe('');
    else expect(notes).toContain(note);
  });

  it('are written to the decimals of their field, words as they are', () => {
    const set: PatchSet = { ...sample(1), lab: Float64Array.of(50.123456789, -0.00001, 3), ids: ['A1'] };
    const written = text(set);
    expect(written).not.toContain('50.123456789');
    expect(written).toMatch(/\b50\.123\d?\b/);
    expect(written).not.toContain('-0.00');
    expect(written).toContain('"patch ""0"" of a set"');
  });
});

describe('CGATS', () => {
  it('writes what it read, to the letter', () => {
    const first = text(sample(40));
    const read = readPatchSet(first);
    expect(read.ok).toBe(true);
    if (read.ok) {
      expect(text(read.value)).toBe(first);
      expect(read.value.conditions.mode).toBe('M1');
      expect(read.value.names?.[3]).toBe('patch "3" of a set');
    }
  });

  it('reads commas, comments, carriage returns, a byte-order mark, 8-bit and per cent values', () => {
    const german = `\ufeffCGATS.17\r\nORIGINATOR "someone # else" # a remark\r\nBEGIN_DATA_FORMAT\r\nSampleID\tRGB_R\tRGB_G\tRGB_B\tLAB_L\tLAB_A\tLAB_B\tnm400 nm410 nm420 nm430 nm440 nm450 nm460 nm470\r\nEND_DATA_FORMAT\r\nBEGIN_DATA\r\n1 100,0 50 0 50,5 -1,25 3 10 20 30 40 50 60 70 80\r\nEND_DATA`;
    const read = readPatchSet(german);
    expect(read.ok).toBe(true);
    if (!read.ok) return;
    expect(read.value.originator).toBe('someone # else');
    expect([...(read.value.device ?? [])]).toEqual([1, 0.5, 0]);
    expect(read.value.lab?.[1]).toBe(-1.25);
    expect(read.value.spectra?.values[1]).toBeCloseTo(0.2, 12);
    expect(read.value.notes).toHaveLength(2);
  });

  it('takes the first table with values of several, and rows broken over lines', () => {
    const two = `${HEAD}BEGIN_DATA\n1 255 0\n0\n2 0 255 0\nEND_DATA\nCGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L\nEND_DATA_FORMAT\nBEGIN_DATA\n1 5\nEND_DATA\n`;
    const tables = readCgats(two);
    expect(tables.ok && tables.value.map((table) => table.rowCount)).toEqual([2, 1]);
  });

  it.each([
    ['a short row', `${HEAD}BEGIN_DATA\n1 0 0 0\n2 0 0\nEND_DATA\n`, 'cgats.row-length', 8],
    ['a long row', `${HEAD}BEGIN_DATA\n1 0 0 0 0\nEND_DATA\n`, 'cgats.row-length', 7],
    ['a word for a number', `${HEAD}BEGIN_DATA\n1 0 zero 0\nEND_DATA\n`, 'cgats.not-a-number', 7],
    ['no end', `${HEAD}BEGIN_DATA\n1 0 0 0\n`, 'cgats.unterminated', 6],
    ['no data', HEAD, 'cgats.no-data', 3],
    ['no format', 'CGATS.17\nBEGIN_DATA\n1 2\nEND_DATA\n', 'cgats.no-format', 2],
    [
      'a wrong count of rows',
      `${HEAD}NUMBER_OF_SETS 3\nBEGIN_DATA\n1 0 0 0\nEND_DATA\n`,
      'cgats.set-count',
      7,
    ],
    [
      'a wrong count of fields',
      `CGATS.17\nNUMBER_OF_FIELDS 5\nBEGIN_DATA_FORMAT\nSAMPLE_ID RGB_R\nEND_DATA_FORMAT\nBEGIN_DATA\n1 1\nEND_DATA\n`,
      'cgats.field-count',
      3,
    ],
    ['an impossible count', 'CGATS.17\nNUMBER_OF_SETS -4\n', 'cgats.bad-count', 2],
    ['an end without a beginning', 'CGATS.17\nEND_DATA\n', 'cgats.unexpected-end', 2],
  ])('names %s with its line', (_, input, code, line) => {
    const read = readCgats(input);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.issues[0]).toMatchObject({ code, line });
  });

  it('refuses values out of range and half a set of channels', () => {
    const range = readPatchSet(`${HEAD}BEGIN_DATA\n1 300 0 0\nEND_DATA\n`);
    expect(!range.ok && range.issues[0].code).toBe('cgats.device-range');
    const half = readPatchSet(
      'CGATS.17\nBEGIN_DATA_FORMAT\nRGB_R RGB_G\nEND_DATA_FORMAT\nBEGIN_DATA\n1 1\nEND_DATA\n',
    );
    expect(!half.ok && half.issues[0].code).toBe('cgats.missing-channel');
  });

  it('never throws, whatever is cut, flipped or claimed', () => {
    const good = text(sample(8));
    const random = createRandom(4);
    for (let round = 0; round < 400; round++) {
      const cut = good.slice(0, random.below(good.length));
      const flipped = good.split('');
      for (let k = 0; k < 6; k++)
        flipped[random.below(flipped.length)] = String.fromCharCode(random.below(256));
      const hostile = good.replace(/NUMBER_OF_(SETS|FIELDS) \d+/, (word) =>
        word.replace(/\d+/, String(10 ** random.below(20))),
      );
      for (const input of [cut, flipped.join(''), hostile]) {
        const read = readPatchSet(input);
        if (!read.ok) for (const issue of read.issues) expect(issue.code).toMatch(/^cgats\./);
      }
    }
    fc.assert(fc.property(fc.string(), (noise) => typeof readPatchSet(noise).ok === 'boolean'));
  });

  it('stops at its caps instead of filling memory', () => {
    const wide = `CGATS.17\nBEGIN_DATA_FORMAT\n${'F '.repeat(2000)}\nEND_DATA_FORMAT\n`;
    const read = readCgats(wide);
    expect(!read.ok && read.issues[0].code).toBe('cgats.too-many-fields');
    const long = readCgats('x'.repeat(16_000_001));
    expect(!long.ok && long.issues[0].code).toBe('cgats.too-large');
  });

  it('parses numbers and nothing else', () => {
    expect(['1', '-1.5', '.5', '1,25', '2e-3', '1.'].map(parseNumber)).toEqual([
      1, -1.5, 0.5, 1.25, 0.002, 1,
    ]);
    expect(['', 'NaN', 'Infinity', '1e999', '0x10', '1.2.3', '--1'].map(parseNumber)).toEqual(
      new Array(7).fill(undefined),
    );
  });
});
