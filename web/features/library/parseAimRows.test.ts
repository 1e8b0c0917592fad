import { describe, expect, it } from 'vitest';
import { parseAimRows } from './parseAimRows';

describe('aims typed by hand', () => {
  it('are seven numbers a line, with points or commas, blanks, tabs or semicolons between', () => {
    const parsed = parseAimRows('0 0 0 0 95 0 -2\n\n 100;0;0;0;55,5;-37;−50\r\n0\t0\t0\t100\t16\t0\t0\n');
    expect(parsed).toEqual({
      ok: true,
      rows: [
        { device: [0, 0, 0, 0], lab: [95, 0, -2] },
        { device: [100, 0, 0, 0], lab: [55.5, -37, -50] },
        { device: [0, 0, 0, 100], lab: [16, 0, 0] },
      ],
    });
  });

  it.each([
    ['0 0 0 0 95 0', 'six numbers'],
    ['0 0 0 0 95 0 -2 1', 'eight numbers'],
    ['0 0 0 101 95 0 -2', 'more than 100 %'],
    ['-1 0 0 0 95 0 -2', 'less than none'],
    ['0 0 0 0 101 0 0', 'lighter than white'],
    ['0 0 0 0 50 201 0', 'a colour that there is not'],
    ['0 0 0 0 fifty 0 0', 'a word'],
  ])('refuse “%s”: %s', (line) => {
    const parsed = parseAimRows(`0 0 0 0 95 0 -2\n${line}`);
    expect(parsed).toMatchObject({ ok: false });
    if (!parsed.ok) expect(parsed.words).toContain(`Line 2: found “${line}”`);
  });

  it('are not none, and not more than can be typed', () => {
    expect(parseAimRows(' \n ')).toEqual({ ok: false, words: 'Give a line for each aim.' });
    const many = parseAimRows('0 0 0 0 95 0 -2\n'.repeat(401));
    expect(many).toEqual({ ok: false, words: '401 aims; 400 at most by hand.' });
  });
});
