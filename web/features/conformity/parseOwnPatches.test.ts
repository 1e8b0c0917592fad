import { describe, expect, it } from 'vitest';
import { parseAimRows } from '../library/parseAimRows.ts';
import { parseOwnPatches } from './parseOwnPatches.ts';

describe('patches typed in', () => {
  it('are four per cents and a name, with commas and blank lines', () => {
    expect(parseOwnPatches('0 0 0 0 paper\n\n40,5 30 30;0  warm grey')).toEqual({
      ok: true,
      patches: [
        { name: 'paper', device: [0, 0, 0, 0] },
        { name: 'warm grey', device: [40.5, 30, 30, 0] },
      ],
    });
  });

  it.each([
    ['', 'Give a line for each patch.'],
    ['0 0 0', 'Line 1'],
    ['0 0 0 0\n0 0 101 0 x', 'Line 2'],
    ['cyan 0 0 0', 'Line 1'],
    [new Array(401).fill('1 2 3 4').join('\n'), '401 patches; 400 at most.'],
  ])('refuse %j in words', (text, words) => {
    const parsed = parseOwnPatches(text);
    expect(parsed.ok ? '' : parsed.words).toContain(words);
  });
});

describe('aims typed in', () => {
  it('are four per cents and Lab, with a true minus sign too', () => {
    expect(parseAimRows('100 0 0 0  55 −37 -50')).toEqual({
      ok: true,
      rows: [{ device: [100, 0, 0, 0], lab: [55, -37, -50] }],
    });
  });

  it.each([
    ['', 'Give a line'],
    ['100 0 0 0 55 -37', 'Line 1'],
    ['0 0 0 0 95 0 0\n0 0 0 0 101 0 0', 'Line 2'],
    ['0 0 0 0 95 0 NaN', 'Line 1'],
  ])('refuse %j in words', (text, words) => {
    const parsed = parseAimRows(text);
    expect(parsed.ok ? '' : parsed.words).toContain(words);
  });
});
