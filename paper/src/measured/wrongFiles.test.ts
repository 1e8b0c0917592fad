import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { issueText } from '@melto/core/result';
import { readMeasurement } from './readMeasurement.ts';

const cgats = (fields: string, rows: readonly string[], before = ''): string =>
  `CGATS.17\n${before}\nBEGIN_DATA_FORMAT\n${fields}\nEND_DATA_FORMAT\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;
const LAB = 'SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B';
const ROWS = ['1 0 0 0 0 95 0 0', '2 100 0 0 0 55 -35 -50', '3 0 0 0 100 16 0 0'];
const bands = (wavelengths: readonly number[], value = '0.5'): string =>
  cgats(`CMYK_C CMYK_M CMYK_Y CMYK_K ${wavelengths.map((nm) => `NM${nm}`).join(' ')}`, [
    `0 0 0 100 ${wavelengths.map(() => value).join(' ')}`,
  ]);
const from = (start: number, count: number, step: number): number[] =>
  Array.from({ length: count }, (_, i) => start + i * step);
const cxf = (inside: string): string => `<CxF><Resources>${inside}</Resources></CxF>`;
const object = (values: string): string =>
  `<ObjectCollection><Object Id="1" Name="a"><ColorValues>${values}</ColorValues></Object></ObjectCollection>`;

/** What is wrong, the file, and what its one sentence must hold. */
const WRONG: readonly (readonly [string, string | Uint8Array, string])[] = [
  ['nothing', new Uint8Array(0), 'an empty file'],
  ['blanks', '  \n\n  ', 'expected CGATS, CxF, or a table'],
  ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0, 1), 'a binary file'],
  ['a PDF', '%PDF-1.7\n1 0 obj\n<< /Type /Catalog >>\nendobj', 'expected CGATS, CxF, or a table'],
  ['a letter', 'Dear house,\nplease find the measurements attached.\n', 'expected CGATS, CxF, or a table'],
  ['a table without colours', 'C,M,Y,K\n0,0,0,0\n', 'expected spectra, XYZ, Lab or LCh'],
  [
    'densities only',
    cgats('SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K D_RED D_GREEN D_BLUE', ['1 0 0 0 100 1 1 1']),
    'densities only',
  ],
  [
    'one colour for all that was printed',
    cgats(
      'SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K XYZ_X XYZ_Y XYZ_Z',
      from(0, 8, 1).map((i) => `${i} ${i} 0 0 100 0 0 0`),
    ),
    'the same colour for all 8 patches',
  ],
  [
    'less light than none',
    cgats('SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K XYZ_X XYZ_Y XYZ_Z', [
      '1 0 0 0 0 80 83 70',
      '2 0 0 0 100 1 -1.1 1',
    ]),
    'XYZ that is nowhere below -1',
  ],
  ['nested without end', '<a>'.repeat(50_000), '…'],
  ['no format', 'CGATS.17\nBEGIN_DATA\n1 2 3\nEND_DATA\n', 'line 2: BEGIN_DATA: found none'],
  ['no end of the data', cgats(LAB, ROWS).replace('END_DATA\n', ''), 'BEGIN_DATA: found the end of the file'],
  [
    'no end of the format',
    cgats(LAB, ROWS).replace('END_DATA_FORMAT', ''),
    'BEGIN_DATA_FORMAT: found the end of the file',
  ],
  ['no data after the format', cgats(LAB, ROWS).split('BEGIN_DATA\n')[0] ?? '', 'a BEGIN_DATA section'],
  ['fewer rows than told', cgats(LAB, ROWS, 'NUMBER_OF_SETS 4'), 'NUMBER_OF_SETS: found 3, expected 4 rows'],
  ['more fields than told', cgats(LAB, ROWS, 'NUMBER_OF_FIELDS 7'), 'NUMBER_OF_FIELDS: found 8, expected 7'],
  [
    'a missing ink',
    cgats(LAB.replace('CMYK_Y ', ''), ['1 0 0 0 95 0 0']),
    'Y: found none for it, expected a column for each channel of CMYK',
  ],
  ['words for numbers', cgats(LAB, ['1 0 0 0 0 x y z']), 'LAB_L is x'],
  ['inks below nought', cgats(LAB, [...ROWS, '4 -5 0 0 0 90 0 0']), 'values outside of them'],
  ['inks beyond any scale', cgats(LAB, [...ROWS, '4 70000 0 0 0 90 0 0']), 'values outside of them'],
  ['Lab out of any range', cgats(LAB, [...ROWS, '4 0 0 100 0 90 0 900']), 'Lab: found 900'],
  [
    'XYZ out of any range',
    cgats('CMYK_C CMYK_M CMYK_Y CMYK_K XYZ_X XYZ_Y XYZ_Z', ['0 0 0 100 9000 9000 9000']),
    'XYZ: found 9000',
  ],
  ['colours for another light', cgats(LAB, ROWS, 'ILLUMINATION_NAME "D65"'), 'found colours for D65'],
  [
    'colours for light A, by its weighting',
    cgats(LAB, ROWS, 'WEIGHTING_FUNCTION "ILLUMINANT, A"'),
    'found colours for A',
  ],
  ['another observer', cgats(LAB, ROWS, 'OBSERVER "10"'), 'found colours for the 10° observer'],
  [
    'colours relative to the paper',
    cgats(LAB, ROWS, 'MEASUREMENT_SOURCE "D50 2 WhiteBase=Paper"'),
    'found colours relative to the paper',
  ],
  ['too few bands', bands(from(400, 7, 20)), 'at least 8 bands'],
  ['bands at odd wavelengths', bands([...from(380, 10, 10), 485]), 'regular wavelengths'],
  ['a wide gap', bands([...from(380, 10, 10), 500, 510]), 'regular wavelengths'],
  [
    'three missing bands',
    bands(from(380, 36, 10).filter((nm) => ![420, 500, 600].includes(nm))),
    'at most 2 missing bands',
  ],
  ['reflectances beyond measure', bands(from(380, 36, 10), '4000'), 'reflectance factors, found 4000'],
  [
    'wavelengths that change',
    cgats('CMYK_C CMYK_M CMYK_Y CMYK_K SPECTRAL_NM SPECTRAL_PCT', ['0 0 0 100 400 5', '0 0 0 0 410 80']),
    '400 and 410 nm in one column',
  ],
  ['broken XML', '<CxF><Resources></CxF>', 'well-formed XML'],
  ['another XML', '<svg><rect/></svg>', 'CxF/Resources/ObjectCollection'],
  ['XML with a document type', '<!DOCTYPE x [<!ENTITY a "b">]><CxF/>', 'no document type and no entities'],
  ['CxF without colours', cxf(object('')), 'found none, expected spectra, Lab, LCh or XYZ'],
  [
    'CxF without wavelengths',
    cxf(object('<ReflectanceSpectrum ColorSpecification="s">0.1 0.2</ReflectanceSpectrum>')),
    'no wavelengths',
  ],
];

function sentence(file: string | Uint8Array): string {
  const found = readMeasurement(file);
  return found.ok ? `ok ${JSON.stringify(found.value.questions)}` : found.issues.map(issueText).join('; ');
}

it('the same colour is believed of seven patches, and of eight that were printed alike', () => {
  const file = (rows: readonly string[]): string =>
    cgats('SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K XYZ_X XYZ_Y XYZ_Z', rows);
  const answers = { mode: 'M1', scale: 100, light: 'D50 2°' } as const;
  expect(readMeasurement(file(from(0, 7, 1).map((i) => `${i} ${i} 0 0 100 9 9 9`)), answers).ok).toBe(true);
  expect(readMeasurement(file(from(0, 8, 1).map((i) => `${i} 50 0 0 100 9 9 9`)), answers).ok).toBe(true);
  expect(readMeasurement(file(['1 0 0 0 0 80 83 70', '2 0 0 0 100 1 -1 1']), answers).ok).toBe(true);
});

describe('a file that cannot be used', () => {
  it.each(WRONG)('%s', (_, file, words) => {
    const said = sentence(file);
    expect(said).toContain(words);
    expect(said.split('; ')).toHaveLength(1);
    expect(said.length).toBeLessThan(400);
  });
});

describe('whatever a file holds', () => {
  const good = [
    cgats(LAB, ROWS, 'MEASUREMENT_SOURCE "D50 2 M1"'),
    bands(from(380, 36, 10)),
    'ID,C,M,Y,K,L,a,b\n1,0,0,0,0,95,0,0\n2,100,0,0,0,55,-35,-50\n',
    cxf(object('<ColorCIELab ColorSpecification="s"><L>50</L><A>1</A><B>2</B></ColorCIELab>')),
  ];
  const pieces = fc.constantFrom(
    '\t',
    '"',
    '\n',
    'BEGIN_DATA',
    'END_DATA',
    'NUMBER_OF_SETS 9',
    '<',
    '>',
    '&',
    '\0',
    '1e400',
    '-',
    ',',
    ';',
    '#',
    'NM380',
    'M1_',
    '\uFEFF',
    'LAB_L',
  );

  it('it is read or refused in words, and never more than it holds', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...good),
        fc.array(fc.tuple(fc.nat(400), fc.nat(12), pieces), { maxLength: 6 }),
        (text, changes) => {
          let broken = text;
          for (const [at, cut, piece] of changes)
            broken = `${broken.slice(0, at)}${piece}${broken.slice(at + cut)}`;
          const found = readMeasurement(broken);
          if (!found.ok) return found.issues.every((issue) => issueText(issue).length > 0);
          return found.value.modes.every(({ set }) => {
            const count = set.ids.length;
            const values = [
              ...(set.lab ?? []),
              ...(set.xyz ?? []),
              ...(set.device ?? []),
              ...(set.spectra?.values ?? []),
            ];
            return values.every(Number.isFinite) && (set.lab === undefined || set.lab.length === 3 * count);
          });
        },
      ),
      { seed: 5, numRuns: 2000 },
    );
  });

  it('bytes of any kind do no harm', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ maxLength: 300 }),
        (bytes) => typeof readMeasurement(bytes).ok === 'boolean',
      ),
      { seed: 6, numRuns: 500 },
    );
  });

  it('a table beyond all bounds is refused', () => {
    const wide = Array.from({ length: 1001 }, (_, i) => `X${i}`).join(' ');
    expect(sentence(cgats(`LAB_L LAB_A LAB_B ${wide}`, ['1']))).toContain('at most 1000 fields');
    const tables = cgats(LAB, ROWS).repeat(65);
    expect(sentence(tables)).toContain('at most 64 tables');
    expect(sentence('x'.repeat(24_000_001))).toContain('at most 24000000 characters');
    expect(sentence(new Uint8Array(32_000_001).fill(65))).toContain('at most 32 MB');
  });
});
