import { describe, expect, it } from 'vitest';
import { mainColours, pictureHistogram } from './mainColours.ts';

/** Pixels of colours in shares of a hundred. */
function picture(...parts: readonly (readonly [count: number, r: number, g: number, b: number])[]) {
  return Uint8ClampedArray.from(
    parts.flatMap(([count, r, g, b]) => Array.from({ length: count }, () => [r, g, b, 255]).flat()),
  );
}

describe('main colours of a picture', () => {
  it('counts areas and leaves out what is transparent', () => {
    const pixels = Uint8ClampedArray.of(...picture([75, 255, 255, 255], [25, 0, 0, 0]), 255, 0, 0, 0);
    const [white, black] = pictureHistogram(pixels);
    expect(white.share).toBeCloseTo(0.75, 9);
    expect(white.lab[0]).toBeCloseTo(100, 3);
    expect(black).toMatchObject({ share: 0.25 });
    expect(black.lab[0]).toBeCloseTo(0, 6);
  });

  it('finds the colours there are, by area', () => {
    const found = mainColours(
      pictureHistogram(picture([50, 40, 90, 160], [30, 200, 60, 50], [15, 245, 240, 225], [5, 20, 20, 20])),
      4,
    );
    expect(found.map(({ share }) => share)).toEqual(
      [0.5, 0.3, 0.15, 0.05].map((share) => expect.closeTo(share, 9)),
    );
    expect(found[0].lab[2]).toBeLessThan(-30);
    expect(found[1].lab[1]).toBeGreaterThan(40);
  });

  it('keeps a small area of skin before a large one that is spread', () => {
    const sky = Array.from({ length: 90 }, (_, i) => [1, 60 + i, 110 + i, 200] as const);
    const skin = mainColours(pictureHistogram(picture(...sky, [4, 232, 184, 150])), 3).filter(
      ({ lab }) => lab[1] > 8 && lab[2] > 12,
    );
    expect(skin).toHaveLength(1);
    expect(skin[0].share).toBeCloseTo(4 / 94, 6);
  });

  it('of no pixels are none', () => {
    expect(mainColours(pictureHistogram(new Uint8ClampedArray(0)), 5)).toEqual([]);
  });
});
