import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { issueText, unwrap } from '../result.ts';
import { typedColour, typedColours } from './typedColour.ts';

describe('a colour that was typed', () => {
  it.each([
    ['52.1 33 -12', '', [52.1, 33, -12]],
    ['52,1 33,0 -12,4', '', [52.1, 33, -12.4]],
    ['52,33,-12', '', [52, 33, -12]],
    ['52.1, 33, -12', '', [52.1, 33, -12]],
    ['52.1;33;-12', '', [52.1, 33, -12]],
    ['52,1\t33\t−12', '', [52.1, 33, -12]],
    ['L*=52.10 a*=33.00 b*=-12.00', '', [52.1, 33, -12]],
    ['L: 52.1 a: 33 b: -12', '', [52.1, 33, -12]],
    ['L 52.1 a 33 b -12', '', [52.1, 33, -12]],
    ['Seed red 032 52.1 33 -12', 'Seed red 032', [52.1, 33, -12]],
    ['Seed red;52,1;33;-12', 'Seed red', [52.1, 33, -12]],
    ['Seed red,52.1,33,-12', 'Seed red', [52.1, 33, -12]],
    ['.5 +.2 -0', '', [0.5, 0.2, -0]],
    ['100 200 -200', '', [100, 200, -200]],
    ['105 0 0', '', [105, 0, 0]],
  ])('as "%s"', (line, name, lab) => {
    expect(unwrap(typedColour(line))).toEqual({ name, lab });
  });

  it.each([
    ['', 'found nothing'],
    ['red', 'found "red"'],
    ['52.1 33', 'expected L*, a*, b* at the end'],
    ['52,1,33,0,-12,4', 'part them by blanks'],
    ['1,2,3,4', 'part them by blanks'],
    ['105.1 0 0', 'found L* 105.1'],
    ['-1 0 0', 'found L* -1'],
    ['50 200.1 0', 'within 200'],
    ['50 0 -200.1', 'within 200'],
    ['52.1 33 -12 D50', 'at the end of the line'],
  ])('as "%s" is refused', (line, words) => {
    const typed = typedColour(line);
    expect(typed.ok ? '' : typed.issues.map(issueText).join()).toContain(words);
  });

  it('comes back from any way of writing it', () => {
    const value = fc.integer({ min: -1999, max: 1999 }).map((n) => n / 10);
    const light = fc.integer({ min: 0, max: 1000 }).map((n) => n / 10);
    fc.assert(
      fc.property(
        light,
        value,
        value,
        fc.constantFrom(' ', '\t', ';', ' ; '),
        fc.boolean(),
        (l, a, b, part, comma) => {
          const words = [l, a, b].map((n) => (comma ? String(n).replace('.', ',') : String(n))).join(part);
          expect(unwrap(typedColour(`Any name${part}${words}`))).toEqual({
            name: 'Any name',
            lab: [l, a, b],
          });
        },
      ),
    );
  });

  it('never throws, whatever is sent', () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => typedColours(text).issues.length >= 0));
  });

  it('is one of several lines, each with its number where it is refused', () => {
    const { colours, issues } = typedColours('one 50 1 2\n\nnonsense\r\ntwo 60 3 4\n');
    expect(colours.map(({ name }) => name)).toEqual(['one', 'two']);
    expect(issues.map(issueText)).toEqual([
      'line 3: found "nonsense", expected L*, a*, b* at the end of the line',
    ]);
  });
});
