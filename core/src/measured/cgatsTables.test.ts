import { describe, expect, it } from 'vitest';
import { issueText, unwrap } from '../result.ts';
import { cgatsTables } from './cgatsTables.ts';

const FILE = [
  'CGATS.17',
  'ORIGINATOR "A program, of somebody"',
  'LONG_WORDS\tone two three',
  'NUMBER_OF_FIELDS 2',
  'BEGIN_DATA_FORMAT',
  'SAMPLE_ID LAB_L',
  'END_DATA_FORMAT',
  'NUMBER_OF_SETS 2',
  'BEGIN_DATA',
  'A1 50',
  'A2 60',
  'END_DATA',
];

describe('tables of CGATS text', () => {
  it('hold keywords with all their words, fields and rows as they stand', () => {
    const [table] = unwrap(cgatsTables(FILE.join('\n')));
    expect(table.keywords).toEqual([
      { name: 'CGATS.17', value: '' },
      { name: 'ORIGINATOR', value: 'A program, of somebody' },
      { name: 'LONG_WORDS', value: 'one two three' },
    ]);
    expect(table.fields).toEqual(['SAMPLE_ID', 'LAB_L']);
    expect(table.rows.map(({ cells }) => cells)).toEqual([
      ['A1', '50'],
      ['A2', '60'],
    ]);
  });

  it.each([
    ['NUMBER_OF_SETS 2', 'NUMBER_OF_SETS 3', /NUMBER_OF_SETS: found 2, expected 3 rows/],
    ['END_DATA_FORMAT', 'END', /BEGIN_DATA_FORMAT|END_DATA_FORMAT/],
    ['BEGIN_DATA', 'DATA', /BEGIN_DATA/],
  ])('with "%s" as "%s" are refused in words', (before, after, words) => {
    const read = cgatsTables(FILE.map((line) => (line === before ? after : line)).join('\n'));
    expect(read.ok ? '' : read.issues.map(issueText).join()).toMatch(words);
  });
});
