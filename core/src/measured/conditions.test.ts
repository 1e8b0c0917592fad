import { describe, expect, it } from 'vitest';
import { toldConditions } from './conditions.ts';

const told = (name: string, value: string) => toldConditions([{ name, value }]);

describe('conditions of measurement, in whatever field they stand', () => {
  it.each([
    ['PRINT_CONDITIONS', 'coated art, 115 g/m2, D50 booth'],
    ['PRINTING_CONDITION', 'M1 of the house'],
    ['MEASUREMENT_NOTE', 'paper of 90 g/m2'],
    ['DESCRIPTOR', 'M1'],
  ])('are not told by %s "%s"', (name, value) => {
    expect(told(name, value).mode).toBeUndefined();
  });

  it('of an instrument’s line are told, all but a mode, which could be its name', () => {
    const value = 'Strip M2, D50, 2 degree, geometry 45/0, no polarisation filter, white backing';
    expect(told('INSTRUMENTATION', value)).toEqual({
      instrument: value,
      illuminant: 'D50',
      observer: 2,
      filter: 'none',
      backing: 'white',
    });
  });

  it.each([
    ['MEASUREMENT_SOURCE', 'MeasurementCondition=M1 Filter=D65', { mode: 'M1', filter: 'D65' }],
    ['MEASUREMENT_CONDITION', 'm0', { mode: 'M0' }],
    ['FILTER', 'UV cut', { mode: 'M2', filter: 'UV cut' }],
    ['FILTER', 'polarised', { mode: 'M3', filter: 'polarised' }],
    ['BACKING', 'black', { backing: 'black' }],
    ['MEASUREMENT_SOURCE', 'on black backing', { backing: 'black' }],
    ['MEASUREMENT_SOURCE', 'backing: white', { backing: 'white' }],
    ['MEASUREMENT_SOURCE', 'Filter=No Backing=white', { backing: 'white' }],
    ['MEASUREMENT_SOURCE', 'Backing white', { backing: 'white' }],
  ])('%s "%s"', (name, value, expected) => {
    expect(told(name, value)).toMatchObject(expected);
  });
});
