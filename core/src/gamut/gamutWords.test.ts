import { describe, expect, it } from 'vitest';
import { colourName } from './gamutWords.ts';

describe('a colour in words', () => {
  it.each([
    [[50, 7.9, 0], 'grey'],
    [[50, 8.1, 0], 'magenta'],
    [[34.9, 0, 0], 'dark grey'],
    [[35.1, 0, 0], 'grey'],
    [[70.1, 0, 0], 'light grey'],
    [[50, -40, 30], 'green'],
    [[60, 10, 60], 'yellow'],
  ] as const)('%j', (lab, words) => {
    expect(colourName(lab)).toContain(words);
  });
});
