import { describe, expect, it } from 'vitest';
import { conditionsApart } from './conditionsApart.ts';

describe('conditions of measurement', () => {
  it.each([
    ['backing', 'white', 'White backing'],
    ['backing', 'wb', 'self'],
    ['backing', 'BB', 'black_backing'],
    ['illuminant', 'D50', 'CIE D50'],
    ['illuminant', 'd50', 'Daylight 5003 K'],
    ['illuminant', 'D 65', 'Standard illuminant D65'],
    ['illuminant', 'A', 'CIE illuminant A'],
    ['observer', '2', '2 degree'],
    ['observer', '2°', 'CIE 1931'],
    ['observer', '10deg', 'CIE 1964 10 degree'],
  ] as const)('are the same %s written as %s and as %s', (field, one, other) => {
    expect(conditionsApart({ mode: 'M1', [field]: one }, { mode: 'M1', [field]: other })).toEqual([]);
    expect(conditionsApart({ mode: 'M1', [field]: other }, { mode: 'M1', [field]: one })).toEqual([]);
  });

  it.each([
    ['backing', 'white', 'black backing'],
    ['illuminant', 'D50', 'D65'],
    ['illuminant', 'D50', 'daylight 5500 K'],
    ['illuminant', 'A', 'D50'],
    ['illuminant', 'A', 'F11'],
    ['observer', '2', 'CIE 1964'],
    ['observer', '2 degree', '10 degree'],
  ] as const)('differ in %s where %s meets %s', (field, one, other) => {
    expect(conditionsApart({ mode: 'M1', [field]: one }, { mode: 'M1', [field]: other })).toEqual([
      `${field} ${one}, the aims are for ${other}`,
    ]);
  });

  it('takes the filter for the mode where only that is told', () => {
    expect(conditionsApart({ mode: 'M3' }, { filter: 'Polarized' })).toEqual([]);
    expect(conditionsApart({ mode: 'M2' }, { filter: 'UV-Cut' })).toEqual([]);
    expect(conditionsApart({ filter: 'pol' }, { mode: 'M1' })).toEqual(['read in M3, the aims are for M1']);
    expect(conditionsApart({ mode: 'M3' }, { filter: 'None' })).toEqual([
      'read in M3 with a polariser, the aims are unpolarised',
    ]);
  });

  it('says which side does not tell its mode', () => {
    expect(conditionsApart({ mode: 'M1' }, {})).toEqual(['read in M1, the aims do not tell their mode']);
    expect(conditionsApart({}, { mode: 'M1' })).toEqual([
      'the reading does not tell its mode, the aims are for M1',
    ]);
    expect(conditionsApart({}, {})).toEqual([]);
  });

  it('compares no backing, light or observer that one side does not tell', () => {
    expect(conditionsApart({ mode: 'M1', backing: 'black', observer: '2' }, { mode: 'M1' })).toEqual([]);
  });
});
