import { describe, expect, it } from 'vitest';
import { lightsFor } from './lightsFor';

const profile = (key: string, id: number, light: string | null, inForceOn = 0) => ({
  key,
  condition: {
    ...{ id, light, inForceOn, version: 1 },
    ...{ device: 'Wren', stock: 'Chalk Rag', mode: 'fine', inkSet: 'pigment' },
  },
});

describe('the lights that a print can be seen in', () => {
  const shelf = [
    profile('hall-2', 1, 'North hall, 2°'),
    profile('hall-1', 1, 'North hall, 2°'),
    profile('day-2', 1, null, 1),
    profile('day-1', 1, null),
    profile('shop', 2, 'Shop, 2°'),
    { key: 'standard', condition: null },
  ];

  it('are those of the newest other profiles of the same condition', () => {
    expect(lightsFor(shelf, 'day-2')).toEqual([{ key: 'hall-2', words: 'North hall, 2°' }]);
    expect(lightsFor(shelf, 'day-1')).toEqual([{ key: 'hall-2', words: 'North hall, 2°' }]);
    expect(lightsFor(shelf, 'hall-1')).toEqual([{ key: 'day-2', words: 'D50, 2°' }]);
  });

  it('are none where no other profile is for another light, and none of a profile without a condition', () => {
    expect(lightsFor(shelf, 'shop')).toEqual([]);
    expect(lightsFor(shelf, 'standard')).toEqual([]);
    expect(lightsFor(shelf, 'unknown')).toEqual([]);
  });
});
