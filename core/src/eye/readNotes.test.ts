import { describe, expect, it } from 'vitest';
import { readNotes } from './readNotes.ts';

const NAMES = ['Skin, light', 'Sky', '3'];
const found = (text: string): string => {
  const read = readNotes(text, NAMES);
  return read.ok
    ? read.value.map(({ colour, words }) => `${colour} ${words.join(' ')}`.trim()).join('; ')
    : (read.issues[0]?.path ?? read.issues[0]?.found ?? '');
};

describe('notes of an eye', () => {
  it('are lines of a colour, by number or name, and words', () => {
    expect(found('1: redder, stronger\n# later\n\nsky: same\r\n')).toBe('0 redder stronger; 1');
    expect(found('skin, light: darker')).toBe('0 darker');
    // A colour that is called by a number is meant by its name.
    expect(found('3: bluer')).toBe('2 bluer');
  });

  it('are refused with their line where they say nothing that can be taken', () => {
    for (const line of [
      '4: redder',
      '0: redder',
      'Sea: redder',
      'redder',
      '1: reddish',
      '1: redder greener',
      '1: lighter darker same',
    ])
      expect(found(`2: same\n${line}`)).toBe('line 2');
    expect(found('1: same\nSkin, light: redder')).toBe('line 2');
    expect(found('')).toBe('none');
  });
});
