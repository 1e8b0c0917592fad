import { describe, expect, it } from 'vitest';
import { REACHED } from '@melto/core/proof/placeList';
import { drawnPdf } from './chartPdf.ts';
import { drawEyePages } from './eyePage.ts';

const WORDS = { list: 'Brand v1', condition: 'Wren', date: '30 Nov', how: 'print without colour management' };
const field = (name: string, beyond = 0.2) => ({ name, beyond, device: [0.1, 0.5, 0.9] });
const draw = (count: number) =>
  drawEyePages(
    'a4',
    Array.from({ length: count }, (_, i) => field(`c${i + 1}`)),
    WORDS,
  );

describe('the page of an eye’s check', () => {
  it('has colours along both edges, twenty to a page, each as far as the line where it is cut', () => {
    expect(draw(20)).toHaveLength(1);
    const [first, second] = draw(21);
    expect([first.patches.length, second.patches.length]).toEqual([20, 1]);
    expect(first.texts[1].text).toContain('Brand v1, page 1 of 2');
    const cuts = (first.lines ?? []).map(({ from }) => from.x);
    expect(cuts).toHaveLength(2);
    for (const { rectangle } of first.patches)
      expect([rectangle.x, rectangle.x + rectangle.width].some((x) => cuts.includes(x))).toBe(true);
    // One side alone is cut once.
    expect(second.lines).toHaveLength(1);
    expect(second.texts.some(({ text }) => text === '21')).toBe(true);
    // None lies on another, or outside of the page.
    first.patches.forEach(({ rectangle: a }, i) => {
      expect(a.y + a.height).toBeLessThan(first.height);
      first.patches.slice(0, i).forEach(({ rectangle: b }) => {
        const apart =
          a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        expect(apart).toBe(true);
      });
    });
  });

  it('marks what is not reached by our shape and a word, and nothing else', () => {
    const [page] = drawEyePages(
      'a4',
      [field('a', REACHED), field('b', REACHED + 0.06), field('c', 7)],
      WORDS,
    );
    expect(page.lozenges).toHaveLength(2);
    expect(page.texts.filter(({ text }) => text.startsWith('not reached')).map(({ text }) => text)).toEqual([
      'not reached, by 1.1',
      'not reached, by 7.0',
    ]);
  });

  it('cuts names that would run into the other side', () => {
    const [page] = drawEyePages('a4', [field('x'.repeat(80))], WORDS);
    expect(
      Math.max(...page.texts.filter(({ text }) => text.startsWith('xx')).map(({ text }) => text.length)),
    ).toBe(26);
  });

  it('becomes a PDF with its lozenges and lines', async () => {
    const of = async (beyond: number): Promise<string> =>
      Buffer.from(
        await drawnPdf(drawEyePages('a4', [field('a', beyond)], WORDS), { title: 'x' }, 0),
      ).toString('latin1');
    const [plain, marked] = [await of(0), await of(5)];
    expect(plain.startsWith('%PDF-')).toBe(true);
    expect(marked.length).toBeGreaterThan(plain.length);
  });
});
