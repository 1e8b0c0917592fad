import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { issueText } from '@melto/core/result';
import { readEmissions } from './readEmissions.ts';

const NM = Array.from({ length: 41 }, (_, i) => 380 + 10 * i);
const power = NM.map((nm) => nm / 780);
const FIELDS = NM.map((nm) => `SPECTRAL_NM${nm}`).join(' ');
const cxf = (element: string): string =>
  `<?xml version="1.0"?><cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core"><cc:Resources><cc:ObjectCollection><cc:Object ObjectType="Emission" Name="Hall" Id="o1"><cc:ColorValues><cc:${element} ColorSpecification="s" StartWL="380">${power.join(' ')}</cc:${element}></cc:ColorValues></cc:Object></cc:ObjectCollection><cc:ColorSpecificationCollection><cc:ColorSpecification Id="s"><cc:MeasurementSpec><cc:MeasurementType>Spectrum_Emissive</cc:MeasurementType><cc:WavelengthRange StartWL="380" Increment="10"/></cc:MeasurementSpec></cc:ColorSpecification></cc:ColorSpecificationCollection></cc:Resources></cc:CxF>`;

const FORMS: readonly (readonly [string, string | Uint8Array, string])[] = [
  [
    'CGATS',
    `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME ${FIELDS}\nEND_DATA_FORMAT\nBEGIN_DATA\n"Hall" ${power.join(' ')}\nEND_DATA\n`,
    'Hall',
  ],
  ['CxF3', cxf('EmissiveSpectrum'), 'Hall'],
  [
    'CSV, a row a light',
    `name;${NM.join(';')}\nHall;${power.map((value) => String(value).replace('.', ',')).join(';')}`,
    'Hall',
  ],
  ['CSV, wavelength and power', ['nm,Hall', ...NM.map((nm, i) => `${nm},${power[i]}`)].join('\r\n'), 'Hall'],
  [
    'tabs, words before the table',
    ['Measured by: Ines', '', 'Wavelength\tHall', ...NM.map((nm, i) => `${nm}\t${power[i]}`)].join('\n'),
    'Hall',
  ],
  [
    'UTF-16',
    Buffer.from(`\uFEFFnm,Hall\n${NM.map((nm, i) => `${nm},${power[i]}`).join('\n')}`, 'utf16le'),
    'Hall',
  ],
];

describe('a measured light', () => {
  it.each(FORMS)('is read from %s', (_, file, name) => {
    const read = readEmissions(file);
    expect(read.ok ? '' : read.issues.map(issueText).join()).toBe('');
    if (!read.ok) return;
    expect(read.value).toHaveLength(1);
    expect(read.value[0]).toMatchObject({ name, grid: { startNm: 380, stepNm: 10, count: 41 } });
    read.value[0].power.forEach((value, i) => expect(value).toBeCloseTo(power[i], 6));
  });

  it.each([
    ['a reading of prints as CxF', cxf('ReflectanceSpectrum'), 'found none'],
    ['a letter', 'Dear house,\nthe hall is warm.\n', 'a column for each wavelength'],
    ['nothing', '', 'a column for each wavelength'],
    ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13), 'a binary file'],
    ['more than any light has', ' '.repeat(4_000_001), 'at most 4000000 characters'],
    ['a bomb of entities', '<!DOCTYPE x [<!ENTITY a "&b;&b;"><!ENTITY b "&a;">]><CxF>&a;</CxF>', ''],
  ] as const)('is none in %s', (_, file, words) => {
    const read = readEmissions(file);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.issues.map(issueText).join('; ')).toContain(words);
  });

  it('is refused in words, whatever the file', () => {
    const cell = fc.oneof(
      fc.string(),
      fc.double().map(String),
      fc.constantFrom('nm', '380', 'NaN', '1e999', '-1', '"', ';'),
    );
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { maxLength: 8 }), { maxLength: 60 }),
        fc.constantFrom(',', ';', '\t', ' '),
        (rows, mark) => {
          const read = readEmissions(rows.map((row) => row.join(mark)).join('\n'));
          if (read.ok)
            for (const light of read.value)
              expect(light.power.every((value) => value >= 0 && value <= 1)).toBe(true);
          else expect(issueText(read.issues[0]).length).toBeGreaterThan(10);
        },
      ),
      { numRuns: 200, seed: 9 },
    );
  });
});
