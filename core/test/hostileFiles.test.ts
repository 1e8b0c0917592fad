import { describe, expect, it } from 'vitest';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { readCgats } from '@melto/core/cgats/readCgats';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { readIcc } from '@melto/core/icc/readIcc';
import type { Issue, Result } from '@melto/core/result';
import { issueText, unwrap } from '@melto/core/result';
import { sampleProfile } from '../src/icc/testing/sampleProfile.ts';

const MOST_MEGABYTES = 64;
/** Guard against hanging; a read takes milliseconds. */
const GUARD_MS = 5000;

/** Runs a reader on hostile input: it must end, not throw, and not fill the memory. */
function issuesOf(work: () => Result<unknown>): readonly Issue[] {
  const before = process.memoryUsage();
  const started = performance.now();
  const result = work();
  const after = process.memoryUsage();
  const grown = (after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers) / 1e6;
  expect(grown).toBeLessThan(MOST_MEGABYTES);
  expect(performance.now() - started).toBeLessThan(GUARD_MS);
  return result.ok ? [] : result.issues;
}

const codeOf = (work: () => Result<unknown>): string => issuesOf(work)[0]?.code ?? 'none';

const good = writeIcc(sampleProfile(4));
const old = writeIcc(sampleProfile(2));

/** Offset of a tag's element in a profile. */
function tagAt(bytes: Uint8Array, signature: string): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  for (let i = 0; i < view.getUint32(128); i++) {
    const entry = 132 + 12 * i;
    if (String.fromCharCode(...bytes.subarray(entry, entry + 4)) === signature)
      return view.getUint32(entry + 4);
  }
  throw new Error(`no tag ${signature}`);
}

function changed(bytes: Uint8Array, edit: (view: DataView, bytes: Uint8Array) => void): Uint8Array {
  const copy = bytes.slice();
  edit(new DataView(copy.buffer), copy);
  return copy;
}

const inTag = (
  base: Uint8Array,
  signature: string,
  at: number,
  value: number,
  width: 1 | 2 | 4 = 4,
): Uint8Array =>
  changed(base, (view) => {
    const place = tagAt(base, signature) + at;
    if (width === 4) view.setUint32(place, value);
    else if (width === 2) view.setUint16(place, value);
    else view.setUint8(place, value);
  });

describe('each structural damage of a profile has an issue of its own', () => {
  it.each<[string, Uint8Array, string]>([
    ['channels of a table', inTag(old, 'A2B0', 8, 99, 1), 'icc.bad-channels'],
    ['grid of a table', inTag(old, 'A2B0', 10, 1, 1), 'icc.bad-grid'],
    ['a grid that claims gigabytes', inTag(old, 'A2B0', 10, 255, 1), 'icc.bad-grid'],
    ['entries of its curves', inTag(old, 'A2B0', 48, 60000, 2), 'icc.bad-count'],
    ['offset of an element', inTag(good, 'A2B0', 12, 0x7fffffff), 'icc.bad-offset'],
    ['an element that is missing', inTag(good, 'A2B0', 12, 0), 'icc.missing-element'],
    ['count of colorants', inTag(good, 'clrt', 8, 0xffffffff), 'icc.bad-count'],
    ['count of named colours', inTag(good, 'ncl2', 12, 0xffffffff), 'icc.bad-count'],
    ['channels of named colours', inTag(good, 'ncl2', 16, 0xffff), 'icc.bad-count'],
    ['records of a text', inTag(good, 'desc', 8, 0xffff), 'icc.bad-count'],
    ['size of a record', inTag(good, 'desc', 12, 8), 'icc.bad-record-size'],
    ['offset of a record', inTag(good, 'desc', 24, 0xffffff), 'icc.bad-offset'],
    ['length of a record', inTag(good, 'desc', 20, 0xfffffff0), 'icc.bad-count'],
    ['function of a curve', inTag(good, 'rTRC', 8, 77, 2), 'icc.bad-function'],
    ['length of a description', inTag(old, 'desc', 8, 0xffffff), 'icc.bad-count'],
    ['connection space', changed(good, (view) => view.setUint32(20, 0x41424344)), 'icc.unknown-pcs'],
    [
      'a tag that stands twice',
      changed(good, (_, bytes) => bytes.copyWithin(132 + 12, 132, 136)),
      'icc.duplicate-tag',
    ],
    ['a size beyond the file', changed(good, (view) => view.setUint32(0, 0xffffffff)), 'icc.truncated'],
    ['an empty file', new Uint8Array(0), 'icc.truncated'],
  ])('%s', (_, bytes, code) => expect(codeOf(() => readIcc(bytes))).toBe(code));

  it('with words that say where, what and what was expected', () => {
    const read = readIcc(inTag(old, 'A2B0', 8, 99, 1));
    expect(read.ok).toBe(false);
    if (!read.ok)
      expect(issueText(read.issues[0])).toMatch(
        /^byte \d+: A2B0 channels: found 99 in, 3 out, expected 1 to 15/,
      );
    expect(() => unwrap(read)).toThrow('A2B0');
  });

  it('keeps types that nobody knows as they are', () => {
    const read = unwrap(readIcc(good));
    expect(read.tags.get('own ')).toMatchObject({ type: 'raw' });
    expect(read.tags.get('desc')).toMatchObject({ records: [{ text: 'Größe' }] });
  });
});

describe('hostile measurement files', () => {
  const head = 'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID RGB_R RGB_G RGB_B LAB_L\nEND_DATA_FORMAT\n';

  it.each([
    [
      'a million values a row',
      `${head}BEGIN_DATA\n${'1 '.repeat(1_000_000)}\nEND_DATA\n`,
      'cgats.row-length',
    ],
    ['rows without end', `${head}BEGIN_DATA\n${'1 2 3 4 5\n'.repeat(400_000)}END_DATA\n`, 'cgats.too-large'],
    ['keywords without end', `CGATS.17\n${'KEY "x"\n'.repeat(5000)}`, 'cgats.too-large'],
    ['tables without end', `${head}BEGIN_DATA\n1 1 1 1 1\nEND_DATA\n`.repeat(70), 'cgats.too-large'],
    [
      'a count of 1e18 rows',
      `${head}NUMBER_OF_SETS 1000000000000000000\nBEGIN_DATA\n1 1 1 1 1\nEND_DATA\n`,
      'cgats.set-count',
    ],
    ['quotes that never close', `${head}BEGIN_DATA\n"1 2 3 4 5\nEND_DATA\n`, 'cgats.row-length'],
    ['NUL bytes', '\0'.repeat(100_000), 'cgats.no-data'],
    [
      'a binary file',
      Array.from({ length: 5000 }, (_, i) => String.fromCharCode((i * 7919) % 256)).join(''),
      'cgats.no-data',
    ],
    ['a number that is none', `${head}BEGIN_DATA\n1 1 1 1 NaN\nEND_DATA\n`, 'cgats.not-a-number'],
    ['an infinite number', `${head}BEGIN_DATA\n1 1 1 1 1e400\nEND_DATA\n`, 'cgats.not-a-number'],
  ])('%s', (_, text, code) => expect(codeOf(() => readCgats(text))).toBe(code));

  it('says what is wrong with spectra that are not regular', () => {
    const fields = [380, 390, 400, 410, 420, 440, 450, 460].map((nm) => `NM${nm}`).join(' ');
    const text = `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID ${fields}\nEND_DATA_FORMAT\nBEGIN_DATA\n1 ${'0.5 '.repeat(8)}\nEND_DATA\n`;
    expect(codeOf(() => readPatchSet(text))).toBe('cgats.spectral-grid');
  });
});
