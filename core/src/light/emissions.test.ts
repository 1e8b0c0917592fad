import { describe, expect, it } from 'vitest';
import type { MeasuredTable } from '../measured/measuredTable.ts';
import { emissionsOf } from './emissions.ts';

const table = (
  fields: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): MeasuredTable => ({
  ...{ form: 'CSV', keywords: [], damaged: [], fields },
  rows: rows.map((cells, i) => ({ line: i + 2, cells: cells.map(String) })),
});
const wavelengths = (startNm: number, endNm: number, stepNm: number): number[] =>
  Array.from({ length: Math.round((endNm - startNm) / stepNm) + 1 }, (_, i) => startNm + i * stepNm);
/** One light in columns, as a spectroradiometer writes it. */
const column = (
  startNm: number,
  endNm: number,
  stepNm: number,
  value: (nm: number) => number | string = () => 4,
) =>
  table(
    ['nm', 'Gallery track'],
    wavelengths(startNm, endNm, stepNm).map((nm) => [nm, value(nm)]),
  );
const why = (given: MeasuredTable): string => {
  const read = emissionsOf([given]);
  return read.ok ? '' : `${read.issues[0].expected}; ${read.issues[0].found}`;
};

describe('lights of a file', () => {
  it('stand in rows, each with its name', () => {
    const bands = wavelengths(380, 730, 10);
    const read = emissionsOf([
      table(
        ['SAMPLE_NAME', ...bands.map((nm) => `SPECTRAL_NM${nm}`)],
        [
          ['Booth', ...bands.map((nm) => nm)],
          ['', ...bands.map(() => '0,5')],
        ],
      ),
    ]);
    expect(read.ok && read.value.map(({ name, grid, power }) => [name, grid, power[0], power[35]])).toEqual([
      ['Booth', { startNm: 380, stepNm: 10, count: 36 }, 380 / 730, 1],
      ['', { startNm: 380, stepNm: 10, count: 36 }, 1, 1],
    ]);
  });

  it('stand in columns beside the wavelengths, in any order of the rows', () => {
    const given = column(340, 780, 5, (nm) => nm - 300);
    const read = emissionsOf([{ ...given, rows: [...given.rows].reverse() }]);
    expect(read.ok && read.value[0]).toMatchObject({
      name: 'Gallery track',
      grid: { startNm: 340, stepNm: 5, count: 89 },
    });
    expect(read.ok && read.value[0].power[88]).toBe(1);
    expect(read.ok && read.value[0].power[0]).toBeCloseTo(40 / 480, 12);
  });

  it.each([
    ['reach from 400', column(400, 700, 10), ''],
    [
      'and not from farther up',
      column(410, 780, 10),
      '400 to 700 nm in steps of 10 nm or less; 410 to 780 nm',
    ],
    ['or less far', column(380, 690, 10), '380 to 690 nm'],
    ['come in steps of 10 nm', column(380, 780, 10), ''],
    ['and no wider, since lamps have lines', column(380, 780, 12.5), 'steps of 12.5 nm'],
    [
      'are even',
      table(['nm', 'x'], [...wavelengths(380, 780, 5).map((nm) => [nm === 500 ? 501 : nm, 1])]),
      '495 nm, then 501 nm',
    ],
    ['have no gaps', column(380, 780, 5, (nm) => (nm === 450 ? '' : 1)), 'none at 450 nm'],
    ['may be noisy about zero', column(380, 780, 5, (nm) => (nm === 380 ? -0.0099 : 1)), ''],
    [
      'but not send less than none',
      column(380, 780, 5, (nm) => (nm === 380 ? -0.0101 : 1)),
      'no power below zero',
    ],
    ['send some', column(380, 780, 5, () => 0), 'light at some wavelength'],
    ['are no infinities', column(380, 780, 5, () => '1e999'), 'numbers throughout'],
    ['have bands', table(['SAMPLE_NAME', 'LAB_L'], [['x', 50]]), 'a column for each wavelength'],
  ] as const)('%s', (_, given, words) => {
    if (words === '') expect(why(given)).toBe('');
    else expect(why(given)).toContain(words);
  });

  it('are not mistaken for a reading of prints', () => {
    const bands = wavelengths(380, 730, 10);
    const given = table(
      ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K', ...bands.map((nm) => `SPECTRAL_NM${nm}`)],
      [[0, 0, 0, 0, ...bands.map(() => 0.9)]],
    );
    expect(why(given)).toContain('device values beside it');
  });

  it('are refused by the line of a row that is damaged', () => {
    const given = { ...column(380, 780, 5), damaged: [{ line: 17, why: '1 values, expected 2' }] };
    const read = emissionsOf([given]);
    expect(!read.ok && read.issues[0]).toMatchObject({ line: 17, found: '1 values, expected 2' });
  });
});
