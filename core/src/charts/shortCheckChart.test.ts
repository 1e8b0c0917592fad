import { describe, expect, it } from 'vitest';
import { labToLch } from '../colour/labToLch.ts';
import { shortCheckColours } from './shortCheckChart.ts';

/** Ranges of hue, in degrees of Lab, that people call by these names. */
const HUES: Readonly<Record<string, readonly [number, number]>> = {
  red: [15, 45],
  orange: [50, 75],
  yellow: [80, 105],
  leaf: [110, 145],
  green: [150, 180],
  teal: [185, 225],
  blue: [235, 285],
  violet: [290, 325],
  rose: [335, 360],
};

describe('colours of the short check', () => {
  it('have the hues of their names, each in a lighter and a darker one', () => {
    const colours = shortCheckColours();
    expect(new Set(colours.map(({ name }) => name)).size).toBe(colours.length);
    for (const [word, [from, to]] of Object.entries(HUES)) {
      const own = colours.filter(({ name }) => name.includes(word));
      expect(own.length, word).toBe(2);
      for (const { name, lab } of own) {
        const [, chroma, hue] = labToLch(lab);
        expect(chroma, name).toBeGreaterThan(15);
        expect(hue, name).toBeGreaterThan(from);
        expect(hue, name).toBeLessThan(to);
      }
    }
  });
});
