import { describe, expect, it } from 'vitest';
import { namesStandard } from './standardNames.ts';

describe('a name of one’s own', () => {
  it.each([
    ['FOGRA39L', 'FOGRA39L'],
    ['fogra 39 l', 'FOGRA39L'],
    ['Our Fogra 51', 'Fogra 51'],
    ['ISO 12647-7 proof', 'ISO 12647-7 proof'],
    ['iso12647 tight', 'iso12647'],
    ['ISO/TS 10128', 'ISO/TS 10128'],
    ['G7 for us', 'G7'],
    ['tr006, warm', 'TR006'],
  ])('%s could be mistaken for %s', (name, standard) => {
    expect(namesStandard(name)).toBe(standard);
  });

  it.each([
    'House, from ISO 12647-7 proof',
    'house FOGRA39L',
    'Saltmarsh gloss',
    'Isola 12',
    'Mg7',
    'Track 006',
  ])('%s says whose it is', (name) => {
    expect(namesStandard(name)).toBeUndefined();
  });

  it('is no house where another word begins so', () => {
    expect(namesStandard('Household FOGRA39L')).toBe('FOGRA39L');
  });
});
