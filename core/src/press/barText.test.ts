import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { unwrap } from '../result.ts';
import { barFromText, barText, MOST_BAR_TEXT } from './barText.ts';
import { designBar } from './colourBar.ts';
import { processUnit } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';

const KCMY = (['K', 'C', 'M', 'Y'] as const).map(processUnit);
const GREEN: PressUnit = { ink: 'Marsh Green 2', filter: 'red' };
const SHAPE = { zoneMm: 30, patchMm: 5 };
const read = (text: string, units: readonly PressUnit[] = KCMY) => barFromText(text, units, SHAPE);
const found = (text: string, units?: readonly PressUnit[]): string => {
  const bar = read(text, units);
  return bar.ok ? 'a bar' : `${bar.issues[0].path}: ${bar.issues[0].found}`;
};

describe('a bar that is described', () => {
  it('has a zone for each line, and what its words say', () => {
    const bar = unwrap(read('K, C, M, Y, paper\n\n2 x K, c50, m + y, C50+M40+Y40, K along, K across'));
    expect(bar.zones).toBe(3);
    expect(bar.patches.map(({ zone }) => zone)).toEqual([
      ...Array(5).fill(0),
      ...Array(6).fill(1),
      ...Array(6).fill(2),
    ]);
    expect(bar.patches.slice(4, 11).map(({ kind, tones }) => [kind, ...tones])).toEqual([
      ['paper', 0, 0, 0, 0],
      ['solid', 1, 0, 0, 0],
      ['tint', 0, 0.5, 0, 0],
      ['overprint', 0, 0, 1, 1],
      ['grey', 0, 0.5, 0.4, 0.4],
      ['slur along', 0.4, 0, 0, 0],
      ['slur across', 0.4, 0, 0, 0],
    ]);
  });

  it('tells an ink whose name ends in a figure from its tone', () => {
    const bar = unwrap(read('K, Marsh Green 2, Marsh Green 2 40, Marsh Green 2 + K', [KCMY[0], GREEN]));
    expect(bar.patches.map(({ kind, tones }) => [kind, ...tones])).toEqual([
      ['solid', 1, 0],
      ['solid', 0, 1],
      ['tint', 0, 0.4],
      ['overprint', 1, 1],
    ]);
  });

  it.each([
    ['of four inks', KCMY],
    ['with a spot colour', [...KCMY, GREEN]],
  ])('is written as it is read, also one that was designed: %s', (_, units) => {
    const designed = unwrap(designBar(units, { zones: 12, zoneMm: 40, patchMm: 5 }));
    const text = barText(designed, units);
    const again = unwrap(barFromText(text, units, { zoneMm: 40, patchMm: 5 }));
    expect(again).toEqual(designed);
    expect(barText(unwrap(read('12 x K, C, M, Y')), KCMY)).toBe('12 x K, C, M, Y');
  });

  it.each([
    ['', 'bar: nothing'],
    ['K, C, M, Y, O', 'line 1: “O”'],
    ['K, C, M, Y\nK, C0', 'line 2: “C0”'],
    ['K, C, M, Y, C101', 'line 1: “C101”'],
    ['K, C, M, Y, C+C50', 'line 1: “C+C50”'],
    ['K, C, M, Y, C50+M40', 'line 1: “C50+M40”'],
    ['K, C, M, Y, C50+M40+K10', 'line 1: “C50+M40+K10”'],
    ['K, C, M, Y, , paper', 'line 1: “”'],
    ['K, C, M', 'bar: none of Y'],
    ['K, C, M, Y50', 'bar: none of Y'],
    ['K, C, M, Y, paper, paper, paper', 'line 1: 7'],
    ['61 x K, C, M, Y', 'line 1: 61'],
    ['0 x K, C, M, Y', 'line 1: 0'],
    ['x'.repeat(MOST_BAR_TEXT + 1), `bar: ${MOST_BAR_TEXT + 1}`],
  ])('is refused as %j', (text, why) => {
    expect(found(text)).toBe(why);
  });

  it('keeps to its limits by a hair', () => {
    expect(found('K, C, M, Y, paper, paper')).toBe('a bar');
    expect(found('60 x K, C, M, Y')).toBe('a bar');
    expect(barFromText('K, C, M, Y', KCMY, { zoneMm: 30, patchMm: 2.9 }).ok).toBe(false);
    expect(barFromText('K, C, M, Y', KCMY, { zoneMm: 101, patchMm: 5 }).ok).toBe(false);
  });

  it('is refused or read, whatever is typed', () => {
    const random = createRandom(12);
    const words = [
      'K',
      'K50',
      'K 30',
      'k12.5%',
      'paper',
      'K along',
      'K across',
      'K+K',
      'C',
      '',
      'K0',
      '2 x K',
      'é',
    ];
    const between = [', ', ',', '\n', ' + ', '\r\n'];
    let bars = 0;
    for (let run = 0; run < 400; run++) {
      const text = Array.from(
        { length: 1 + random.below(6) },
        () =>
          words[random.below(random.below(4) === 0 ? words.length : 7)] +
          between[random.below(random.below(4) === 0 ? 5 : 2)],
      )
        .join('')
        .replace(/[,+\s]+$/, '');
      const bar = read(text, KCMY.slice(0, 1));
      if (!bar.ok) continue;
      bars++;
      expect(unwrap(read(barText(bar.value, KCMY.slice(0, 1)), KCMY.slice(0, 1)))).toEqual(bar.value);
    }
    expect(bars).toBeGreaterThan(0);
  });
});
