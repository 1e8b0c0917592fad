import { describe, expect, it } from 'vitest';
import { labToLch } from '@melto/core/colour/labToLch';
import type { Lab } from '@melto/core/colour/lab';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { Answers, Measurement } from '@melto/core/measured/measurement';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { readMeasurement } from './readMeasurement.ts';

// One reading, written in many forms: whatever the form, the same colours and device values come out.
const NM = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
const INKS = [0, 0.25, 0.5, 0.75, 1].flatMap((a) =>
  [0, 0.4, 1].map((b): number[] => [a, b, (a + b) / 2, a * b]),
);
const SPECTRA = INKS.map(([c, m, y, k]) =>
  NM.map((nm) => {
    const cover = (at: number, wide: number): number => 0.9 * Math.exp(-(((nm - at) / wide) ** 2));
    return (
      0.88 * (1 - c * cover(620, 80)) * (1 - m * cover(540, 60)) * (1 - y * cover(440, 50)) * (1 - 0.93 * k)
    );
  }),
);
const GRID = { startNm: 380, stepNm: 10, count: 36 };
const WEIGHTS = createXyzWeights(GRID, tableIlluminant('D50'), '2deg');
const XYZ = SPECTRA.map((spectrum) => {
  const out = new Float64Array(3);
  spectraToXyz(WEIGHTS, Float64Array.from(spectrum), out);
  return [...out];
});
const LAB = XYZ.map(([x, y, z]) => xyzToLab([x, y, z], WHITE_D50_MEASURED));

interface Table {
  readonly fields: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

const beside = (...tables: Table[]): Table => ({
  fields: tables.flatMap(({ fields }) => fields),
  rows: INKS.map((_, i) => tables.flatMap(({ rows }) => rows[i])),
});
const ids: Table = { fields: ['SAMPLE_ID'], rows: INKS.map((_, i) => [i + 1]) };
const named: Table = { fields: ['SAMPLE_NAME'], rows: INKS.map((_, i) => [`house red ${i}`]) };
const inks = (scale: number, fields = ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K']): Table => ({
  fields,
  rows: INKS.map((values) => values.map((value) => value * scale)),
});
const spectra = (name: (nm: number) => string, scale = 1, values = SPECTRA): Table => ({
  fields: NM.map(name),
  rows: values.map((spectrum) => spectrum.map((value) => value * scale)),
});
const nm = spectra((own) => `SPECTRAL_NM${own}`);
const lab: Table = { fields: ['LAB_L', 'LAB_A', 'LAB_B'], rows: LAB };
const xyz: Table = { fields: ['XYZ_X', 'XYZ_Y', 'XYZ_Z'], rows: XYZ };

const TOLD = ['MEASUREMENT_SOURCE "Illumination=D50 ObserverAngle=2 M1 WhiteBase=Absolute"'];
function cgats(table: Table, { keywords = TOLD, mark = ' ', ends = '\n' } = {}): string {
  const cell = (value: string | number): string => (typeof value === 'string' ? `"${value}"` : String(value));
  return [
    'CGATS.17',
    ...keywords,
    `NUMBER_OF_FIELDS ${table.fields.length}`,
    'BEGIN_DATA_FORMAT',
    table.fields.join(mark),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${table.rows.length}`,
    'BEGIN_DATA',
    ...table.rows.map((row) => row.map(cell).join(mark)),
    'END_DATA',
    '',
  ].join(ends);
}
const csv = (table: Table, mark: string, comma = false): string =>
  [table.fields, ...table.rows]
    .map((row) => row.map((value) => (comma ? String(value).replace('.', ',') : String(value))).join(mark))
    .join('\r\n');
const utf16 = (text: string, big: boolean, mark: boolean): Uint8Array => {
  const bytes = Buffer.from(`${mark ? '\uFEFF' : ''}${text}`, 'utf16le');
  return new Uint8Array(big ? bytes.swap16() : bytes);
};
const cxf = (): string =>
  `<?xml version="1.0"?><cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core"><cc:Resources><cc:ObjectCollection>${INKS.map(
    ([c, m, y, k], i) =>
      `<cc:Object ObjectType="Target" Name="P${i}" Id="o${i}"><cc:ColorValues><cc:ReflectanceSpectrum ColorSpecification="s" StartWL="380">${SPECTRA[i].join(' ')}</cc:ReflectanceSpectrum></cc:ColorValues><cc:DeviceColorValues><cc:ColorCMYK ColorSpecification="d"><cc:Cyan>${100 * c}</cc:Cyan><cc:Magenta>${100 * m}</cc:Magenta><cc:Yellow>${100 * y}</cc:Yellow><cc:Black>${100 * k}</cc:Black></cc:ColorCMYK></cc:DeviceColorValues></cc:Object>`,
  ).join(
    '',
  )}</cc:ObjectCollection><cc:ColorSpecificationCollection><cc:ColorSpecification Id="s"><cc:MeasurementSpec><cc:MeasurementType>Spectrum_Reflectance</cc:MeasurementType><cc:WavelengthRange StartWL="380" Increment="10"/><cc:Device><cc:DeviceIllumination>M1</cc:DeviceIllumination></cc:Device></cc:MeasurementSpec></cc:ColorSpecification></cc:ColorSpecificationCollection></cc:Resources></cc:CxF>`;

/** Darker by mode, so that the wrong one is told from the right one. */
const mode = (name: string, share: number, field: (own: number) => string): Table =>
  spectra(
    (own) => `${name}${field(own)}`,
    1,
    SPECTRA.map((spectrum) => spectrum.map((value) => value * share)),
  );

const FORMS: readonly (readonly [string, string | Uint8Array, Answers?])[] = [
  ['CGATS as the standard has it', cgats(beside(ids, inks(100), nm))],
  [
    'tabs, names with spaces and no quotes',
    cgats(beside(ids, named, inks(100), nm), { mark: '\t' })
      .replaceAll('"house', 'house')
      .replace(/(house red \d+)"/g, '$1'),
  ],
  [
    'spaces, names with spaces and no quotes',
    cgats(beside(ids, named, inks(100), nm)).replace(/"(house red \d+)"/g, '$1'),
  ],
  ['quoted names', cgats(beside(ids, named, inks(100), nm))],
  [
    'empty cells between tabs',
    cgats(
      beside({ ...named, rows: INKS.map(() => ['']) }, ids, inks(100), nm, {
        fields: ['NOTE'],
        rows: INKS.map(() => ['']),
      }),
      { mark: '\t' },
    ).replaceAll('""', ''),
  ],
  ['line ends of old machines', cgats(beside(ids, inks(100), nm), { ends: '\r' })],
  ['a byte-order mark', `\uFEFF${cgats(beside(ids, inks(100), nm))}`],
  ['UTF-16 with its mark', utf16(cgats(beside(ids, inks(100), nm)), false, true)],
  ['UTF-16, the other end first', utf16(cgats(beside(ids, inks(100), nm)), true, true)],
  ['UTF-16 without a mark', utf16(cgats(beside(ids, inks(100), nm)), false, false)],
  ['decimal commas', cgats(beside(ids, inks(100), nm), { mark: '\t' }).replace(/(\d)\.(\d)/g, '$1,$2')],
  [
    'SPECTRAL_380',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `SPECTRAL_${own}`),
      ),
    ),
  ],
  [
    'SPEC_380',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `SPEC_${own}`),
      ),
    ),
  ],
  [
    '380nm',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `${own}nm`),
      ),
    ),
  ],
  [
    'R_380',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `R_${own}`),
      ),
    ),
  ],
  [
    'R_380.00',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `R_${own}.00`),
      ),
    ),
  ],
  [
    'pairs of wavelength and value',
    cgats(
      beside(ids, inks(100), {
        fields: NM.flatMap(() => ['SPECTRAL_NM', 'SPECTRAL_PCT']),
        rows: SPECTRA.map((row) => row.flatMap((value, i) => [NM[i], 100 * value])),
      }),
    ),
  ],
  [
    'spectra in per cent',
    cgats(
      beside(
        ids,
        inks(100),
        spectra((own) => `NM${own}`, 100),
      ),
    ),
  ],
  [
    'spectra from red to blue',
    cgats(
      beside(ids, inks(100), {
        fields: [...nm.fields].reverse(),
        rows: nm.rows.map((row) => [...row].reverse()),
      }),
    ),
  ],
  ['inks 0 to 1', cgats(beside(ids, inks(1), nm))],
  ['inks 0 to 255', cgats(beside(ids, inks(255), nm))],
  ['inks 0 to 65535', cgats(beside(ids, inks(65535), nm))],
  ['inks to 100.39, from rounding', cgats(beside(ids, inks(100), nm)).replace(/ 100 /g, ' 100.39 ')],
  ['counted inks', cgats(beside(ids, inks(100, ['4CLR_1', '4CLR_2', '4CLR_3', '4CLR_4']), nm))],
  ['letters alone', cgats(beside(ids, inks(100, ['C', 'M', 'Y', 'K']), nm))],
  [
    'rows over several lines',
    cgats(beside(ids, inks(100), nm)).replace(/(SPECTRAL_NM500)|((?:\S+ ){20})/g, '$1$2\n'),
  ],
  ['XYZ', cgats(beside(ids, inks(100), xyz))],
  [
    'XYZ 0 to 1',
    cgats(beside(ids, inks(100), { ...xyz, rows: XYZ.map((row) => row.map((value) => value / 100)) })),
  ],
  ['Lab', cgats(beside(ids, inks(100), lab))],
  [
    'Lab, its light answered',
    cgats(beside(ids, inks(100), lab), { keywords: ['MEASUREMENT_MODE "M1"'] }),
    { light: 'D50 2°' },
  ],
  [
    'LCh',
    cgats(
      beside(ids, inks(100), {
        fields: ['LAB_L', 'LAB_C', 'LAB_H'],
        rows: LAB.map((own) => [...labToLch(own as Lab)]),
      }),
    ),
  ],
  ['CSV, commas', csv(beside(ids, inks(100, ['C', 'M', 'Y', 'K']), spectra(String)), ','), { mode: 'M1' }],
  [
    'CSV, semicolons and decimal commas',
    csv(beside(ids, inks(100, ['Cyan', 'Magenta', 'Yellow', 'Black']), spectra(String)), ';', true),
    { mode: 'M1' },
  ],
  [
    'CSV with words above it',
    `Run of Tuesday\r\nMeasurement condition: M1\r\n\r\n${csv(
      beside(
        ids,
        inks(100),
        spectra((own) => `nm${own}`),
      ),
      ',',
    )}`,
  ],
  [
    'a pasted table',
    csv(beside(ids, inks(100, ['C', 'M', 'Y', 'K']), { ...lab, fields: ['L*', 'a*', 'b*'] }), '\t'),
    { mode: 'M1', light: 'D50 2°' },
  ],
  [
    'a pasted table parted by blanks',
    csv(beside(ids, inks(100), { ...lab, fields: ['L', 'a', 'b'] }), '   '),
    { mode: 'M1', light: 'D50 2°' },
  ],
  ['CxF3', cxf()],
  [
    'device and colours in two tables',
    `${cgats(beside(ids, inks(100)))}${cgats({ fields: beside(ids, nm).fields, rows: [...beside(ids, nm).rows].reverse() })}`,
  ],
  [
    'a small table first',
    `${cgats({ fields: ['SAMPLE_ID', 'LAB_L', 'LAB_A', 'LAB_B'], rows: [[1, 96, 0, 0]] })}${cgats(beside(ids, inks(100), nm))}`,
  ],
  [
    'three modes in columns',
    cgats(
      beside(
        ids,
        inks(100),
        mode('M0_', 0.9, (own) => `NM${own}`),
        mode('M1_', 1, (own) => `NM${own}`),
        mode('M2_', 0.8, (own) => `NM${own}`),
      ),
    ),
  ],
  [
    'three modes in tables',
    (['M2', 'M1', 'M0'] as const)
      .map((name) =>
        cgats(
          beside(
            ids,
            inks(100),
            mode('', name === 'M1' ? 1 : 0.7, (own) => `NM${own}`),
          ),
          { keywords: [`MEASUREMENT_CONDITION "${name}"`] },
        ),
      )
      .join(''),
  ],
  [
    'columns that nothing is made of',
    cgats(
      beside(ids, inks(100), { fields: ['D_RED', 'STDEV_L', 'SPIN'], rows: INKS.map(() => [1, 0.1, 7]) }, nm),
    ),
  ],
];

function read(file: string | Uint8Array, answers?: Answers): Measurement {
  const found = readMeasurement(file, answers);
  if (!found.ok) throw new Error(JSON.stringify(found.issues));
  return found.value;
}

function formOf(wanted: string): string | Uint8Array {
  const form = FORMS.find(([name]) => name === wanted);
  if (form === undefined) throw new Error(wanted);
  return form[1];
}

describe('one reading in many forms', () => {
  it.each(FORMS.map(([name, file, answers]) => ({ name, file, answers })))('$name', ({ file, answers }) => {
    const { modes, questions, damaged } = read(file, answers);
    expect(questions).toEqual([]);
    expect(damaged).toEqual([]);
    const own = modes.find(({ mode }) => mode === 'M1');
    if (own === undefined) throw new Error('no M1');
    const colours = patchXyz(own.set);
    const order = own.set.ids.map((id) =>
      own.set.ids.length === new Set(own.set.ids).size && /^\d+$/.test(id)
        ? Number(id) - 1
        : own.set.ids.indexOf(id),
    );
    order.forEach((patch, row) => {
      INKS[patch].forEach((value, channel) =>
        expect(own.set.device?.[4 * row + channel]).toBeCloseTo(value, 5),
      );
      XYZ[patch].forEach((value, axis) => expect(colours?.[3 * row + axis]).toBeCloseTo(value, 6));
    });
    expect(order).toHaveLength(INKS.length);
  });

  it('keeps the modes apart, and names what it did not use', () => {
    const modes = read(formOf('three modes in columns')).modes;
    expect(modes.map(({ mode }) => mode)).toEqual(['M0', 'M1', 'M2']);
    expect(modes[0].set.spectra?.values[0]).toBeCloseTo(0.9 * SPECTRA[0][0], 12);
    const { unused } = read(formOf('columns that nothing is made of'));
    expect(unused).toEqual(['D_RED', 'STDEV_L', 'SPIN']);
    const { notes } = read(formOf('a small table first'));
    expect(notes).toContain('A smaller table was not used.');
  });
});

describe('what a file leaves open', () => {
  const asks = (file: string, answers?: Answers): readonly string[] =>
    read(file, answers).questions.map((question) => question.asks);

  it('is asked: mode, light, scale', () => {
    expect(asks(cgats(beside(ids, inks(100), nm), { keywords: [] }))).toEqual(['mode']);
    expect(asks(cgats(beside(ids, inks(100), lab), { keywords: [] }))).toEqual(['light', 'mode']);
    expect(asks(cgats(beside(ids, inks(100), lab), { keywords: ['MEASUREMENT_SOURCE "D50, M1"'] }))).toEqual([
      'light',
    ]);
    const part = cgats(beside(ids, inks(85), nm));
    expect(read(part).questions).toEqual([
      { asks: 'scale', process: 'CMYK', channels: 4, options: [100, 255] },
    ]);
    expect(read(part).modes[0].set.device).toBeUndefined();
    expect(asks(part, { scale: 100 })).toEqual([]);
    expect(read(part, { scale: 100 }).modes[0].set.device?.at(-1)).toBeCloseTo(0.85, 9);
    expect(asks(part, { scale: 255 })).toEqual([]);
  });

  it('is asked where two tables could be meant', () => {
    const two = `${cgats(beside(ids, inks(100), nm))}${cgats(
      beside(
        ids,
        inks(100),
        mode('', 0.9, (own) => `NM${own}`),
      ),
    )}`;
    const [question] = read(two).questions;
    if (question.asks !== 'table') throw new Error('no question');
    expect(question.options).toHaveLength(2);
    const second = read(two, { table: question.options[1] });
    expect(second.questions).toEqual([]);
    expect(second.modes[0].set.spectra?.values[0]).toBeCloseTo(0.9 * SPECTRA[0][0], 12);
  });

  it('is told by what stands in other fields', () => {
    const told = (...keywords: string[]) => read(cgats(beside(ids, inks(100), nm), { keywords })).told;
    expect(told('FILTER "UV-cut"').mode).toBe('M2');
    expect(told('FILTER "Polarized"').mode).toBe('M3');
    expect(told('FILTER "None"').mode).toBeUndefined();
    expect(
      told(
        'KEYWORD "WEIGHTING_FUNCTION"',
        'WEIGHTING_FUNCTION "ILLUMINANT, D65"',
        'WEIGHTING_FUNCTION "OBSERVER, 10 degree"',
      ),
    ).toMatchObject({ illuminant: 'D65', observer: 10 });
    expect(told('SAMPLE_BACKING "black"', 'MEASUREMENT_GEOMETRY "45/0"')).toMatchObject({
      backing: 'black',
      geometry: '45/0',
    });
    expect(told('DESCRIPTOR "M1 of last week, D65"')).toEqual({});
  });

  it('leaves a damaged row out and says why', () => {
    const lines = cgats(beside(ids, inks(100), nm)).split('\n');
    const first = lines.indexOf('BEGIN_DATA') + 1;
    lines[first + 2] = lines[first + 2].replace(/\S+$/, 'x');
    lines[first + 4] = lines[first + 4].split(' ').slice(1).join(' ');
    const { damaged, modes } = read(lines.join('\n'));
    expect(damaged).toEqual([
      { line: first + 3, why: 'SPECTRAL_NM730 is x' },
      { line: first + 5, why: `${1 + 4 + 36 - 1} values, expected ${1 + 4 + 36}` },
    ]);
    expect(modes[0].set.ids).toHaveLength(INKS.length - 2);
  });

  it('works one missing band out from its neighbours, and says so', () => {
    const without = (...missing: number[]): Table => ({
      fields: nm.fields.filter((_, i) => !missing.includes(NM[i])),
      rows: nm.rows.map((row) => row.filter((_, i) => !missing.includes(NM[i]))),
    });
    const { modes, notes } = read(cgats(beside(ids, inks(100), without(500))));
    expect(notes.join()).toContain('The band at 500 nm is missing');
    const { grid, values } = modes[0].set.spectra ?? { grid: undefined, values: [] };
    expect(grid).toEqual(GRID);
    SPECTRA.forEach((spectrum, row) =>
      expect(Math.abs((values[36 * row + 12] ?? NaN) - spectrum[12])).toBeLessThan(0.002),
    );
    expect(readMeasurement(cgats(beside(ids, inks(100), without(500, 510)))).ok).toBe(false);
    expect(readMeasurement(cgats(beside(ids, inks(100), without(390)))).ok).toBe(false);
  });
});

describe('spectra that hold the bandpass of their instrument', () => {
  it('are corrected where a person says so, in words, and are as they stand otherwise', () => {
    const file = cgats(beside(ids, inks(100), nm));
    const read = (answers: Answers): Measurement => {
      const found = readMeasurement(file, answers);
      if (!found.ok) throw new Error(JSON.stringify(found.issues));
      return found.value;
    };
    const [asRead, corrected] = [read({}), read({ bandpass: 'take out' })];
    const valuesOf = ({ modes }: Measurement) => modes[0].set.spectra?.values ?? new Float64Array(0);
    expect(valuesOf(asRead)[5]).toBeCloseTo(SPECTRA[0][5], 6);
    const bent = SPECTRA[3][11] * 2 - SPECTRA[3][10] - SPECTRA[3][12];
    expect(Math.abs(bent)).toBeGreaterThan(1e-4);
    expect(valuesOf(corrected)[3 * 36 + 11]).toBeCloseTo(SPECTRA[3][11] + bent / 12, 6);
    expect(corrected.notes).toContain('The bandpass of the instrument was taken out of the spectra.');
    expect(asRead.notes).toEqual([]);
  });

  it('are none where the file holds colours only', () => {
    const found = readMeasurement(cgats(beside(ids, inks(100), lab)), { bandpass: 'take out' });
    expect(found.ok && found.value.notes).toEqual([]);
  });
});
