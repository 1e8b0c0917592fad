import { describe, expect, it } from 'vitest';
import { contrast, PALETTES } from './palette.ts';

describe.each(['light', 'dark'] as const)('%s palette', (name) => {
  const palette = PALETTES[name];

  it('has 4.5:1 at least for words and status tones on every ground', () => {
    for (const ground of ['page', 'surface', 'wash'] as const)
      for (const ink of ['text', 'quiet'] as const)
        expect(contrast(palette[ink], palette[ground])).toBeGreaterThanOrEqual(4.5);
    for (const tone of ['conforms', 'near', 'fails'] as const)
      expect(contrast(palette[tone], palette.surface)).toBeGreaterThanOrEqual(4.5);
  });

  it('is achromatic but for its status tones', () => {
    for (const key of ['page', 'surface', 'rule', 'text', 'quiet', 'wash'] as const) {
      const hex = palette[key];
      expect(hex.slice(1, 3)).toBe(hex.slice(3, 5));
      expect(hex.slice(3, 5)).toBe(hex.slice(5, 7));
    }
  });
});

it('contrast of black on white is 21', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});
