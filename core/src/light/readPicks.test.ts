import { describe, expect, it } from 'vitest';
import { MOST_EYES, STUDY_FIELDS } from './brightenerStudy.ts';
import { readPicks } from './readPicks.ts';

const found = (text: string): string => {
  const read = readPicks(text);
  return read.ok ? JSON.stringify(read.value.map(({ row, field, eye }) => [row, field, eye])) : 'refused';
};

describe('picks of a brightener study', () => {
  it('are lines of row and field, as the page has them, and of a person where there are several', () => {
    expect(found('A,7\n')).toBe('[[0,6,0]]');
    expect(found('# first round\r\n b ; 1 \r\n\r\nC 15 2')).toBe('[[1,0,0],[2,14,1]]');
    expect(found(`A,1\nA,${STUDY_FIELDS},${MOST_EYES}`)).toBe(
      `[[0,0,0],[0,${STUDY_FIELDS - 1},${MOST_EYES - 1}]]`,
    );
  });

  it('are refused with their line where a row, a field or a person is none of the page', () => {
    for (const line of [
      'D,1',
      'A,0',
      `A,${STUDY_FIELDS + 1}`,
      'A',
      '7,A',
      'A,7,0',
      `A,7,${MOST_EYES + 1}`,
      'A,7,1,2',
      'A,-1',
    ])
      expect(found(line)).toBe('refused');
    const read = readPicks('A,7\nA,99');
    expect(read.ok ? '' : read.issues[0]).toMatchObject({ path: 'line 2', found: '"A,99"' });
    expect(found('')).toBe('refused');
    expect(found('A,1\n'.repeat(500))).not.toBe('refused');
    expect(found('A,1\n'.repeat(501))).toBe('refused');
  });
});
