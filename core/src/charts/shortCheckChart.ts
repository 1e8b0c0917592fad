import type { Lab } from '../colour/lab.ts';
import { lchToLab } from '../colour/labToLch.ts';

/** A colour asked for by the short check, with its name for the report. */
export interface ShortCheckColour {
  readonly name: string;
  readonly lab: Lab;
  readonly group: 'paper' | 'grey' | 'skin' | 'hue';
}

const GREYS = [92, 80, 68, 56, 44, 36, 28];
const SKIN: readonly (readonly [string, number, number, number])[] = [
  ['skin, pale', 82, 17, 62],
  ['skin, fair', 70, 26, 58],
  ['skin, brown', 52, 30, 56],
  ['skin, dark', 34, 22, 52],
];
const HUES: readonly (readonly [string, number])[] = [
  ['red', 32],
  ['orange', 62],
  ['yellow', 92],
  ['leaf', 132],
  ['green', 165],
  ['teal', 205],
  ['blue', 255],
  ['violet', 300],
  ['rose', 350],
];

/**
 * The thirty-odd colours of the short check, defined in Lab (D50): paper, greys, skin-like tones, and for nine hues
 * a lighter and a darker colour. Chosen by Melto; no published set.
 */
export function shortCheckColours(): ShortCheckColour[] {
  const colours: ShortCheckColour[] = [{ name: 'paper', lab: [100, 0, 0], group: 'paper' }];
  for (const l of GREYS) colours.push({ name: `grey ${l}`, lab: [l, 0, 0], group: 'grey' });
  for (const [name, l, c, h] of SKIN) colours.push({ name, lab: lchToLab([l, c, h]), group: 'skin' });
  for (const [name, h] of HUES) {
    // Yellow is light by nature, blue and violet are dark; the pairs follow the hue.
    const middle = 56 + 14 * Math.cos(((h - 95) * Math.PI) / 180);
    colours.push({ name: `light ${name}`, lab: lchToLab([middle + 14, 26, h]), group: 'hue' });
    colours.push({ name: `deep ${name}`, lab: lchToLab([middle - 10, 42, h]), group: 'hue' });
  }
  return colours;
}
