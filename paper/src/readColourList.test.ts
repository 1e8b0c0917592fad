import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { createRandom } from '@melto/core/numerics/random';
import { readColourList } from './readColourList.ts';

const CXF = `<?xml version="1.0" encoding="UTF-8"?>
<cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core"><cc:Resources>
<cc:ObjectCollection>
<cc:Object ObjectType="Standard" Name="Tide blue" Id="1"><cc:ColorValues>
<cc:ColorCIELab ColorSpecification="S"><cc:L>32.5</cc:L><cc:A>4.25</cc:A><cc:B>-41</cc:B></cc:ColorCIELab></cc:ColorValues></cc:Object>
<cc:Object ObjectType="Standard" Name="Half grey" Id="2"><cc:ColorValues>
<cc:ReflectanceSpectrum ColorSpecification="S" StartWL="400">${Array.from({ length: 16 }, () => '0.5').join(' ')}</cc:ReflectanceSpectrum></cc:ColorValues></cc:Object>
</cc:ObjectCollection>
<cc:ColorSpecificationCollection><cc:ColorSpecification Id="S"><cc:MeasurementSpec><cc:WavelengthRange StartWL="400" Increment="20"/></cc:MeasurementSpec></cc:ColorSpecification></cc:ColorSpecificationCollection>
</cc:Resources></cc:CxF>`;

const CGATS = `CGATS.17
NUMBER_OF_FIELDS 4
BEGIN_DATA_FORMAT
SAMPLE_NAME LAB_L LAB_A LAB_B
END_DATA_FORMAT
NUMBER_OF_SETS 1
BEGIN_DATA
"Marsh green" 48.2 -35 21.5
END_DATA
`;

function colours(text: string) {
  const read = readColourList(text);
  if (!read.ok) throw new Error(read.issues.map(({ expected }) => expected).join());
  return read.value;
}

describe('colour lists', () => {
  it('come from CxF, spectra before Lab', () => {
    const [blue, grey] = colours(CXF);
    expect(blue).toEqual({ name: 'Tide blue', lab: [32.5, 4.25, -41] });
    expect(grey.name).toBe('Half grey');
    expect(grey.spectrum?.grid).toEqual({ startNm: 400, stepNm: 20, count: 16 });
    expect(grey.spectrum?.values).toEqual(Array<number>(16).fill(0.5));
    // An even reflectance of one half is L* 76.07 without colour, whatever its step.
    expect(grey.lab[0]).toBeCloseTo(76.0693, 2);
    expect(Math.hypot(grey.lab[1], grey.lab[2])).toBeLessThan(0.01);
    expect(labToXyz(grey.lab, WHITE_D50_MEASURED)[1]).toBeCloseTo(50, 2);
  });

  it('come from CGATS and from CSV, decimal commas too', () => {
    expect(colours(CGATS)[0]).toMatchObject({ name: 'Marsh green' });
    expect(colours(CGATS)[0].lab[1]).toBeCloseTo(-35, 6);
    expect(colours('Name;L;a;b\nSeed red;45,5;60;40,25\n;50;0;0\n')).toEqual([
      { name: 'Seed red', lab: [45.5, 60, 40.25] },
      { name: 'colour 2', lab: [50, 0, 0] },
    ]);
  });

  const LIGHT =
    '<cc:TristimulusSpec><cc:Illuminant>D65</cc:Illuminant><cc:Observer>10_Degree</cc:Observer></cc:TristimulusSpec>';

  it('for another light are refused, unless their spectra are there', () => {
    const foreign = CXF.replace('<cc:MeasurementSpec>', `${LIGHT}<cc:MeasurementSpec>`);
    const read = readColourList(foreign);
    expect(read.ok ? 'accepted' : `${read.issues[0].path}: ${read.issues[0].found}`).toBe(
      'Tide blue: colours for D65',
    );
    expect(colours(foreign.replace(/<cc:ColorCIELab.*?<\/cc:ColorCIELab>/s, ''))).toHaveLength(1);
    const daylight = foreign.replace('D65', 'D50').replace('10_Degree', '2_Degree');
    expect(colours(daylight)).toHaveLength(2);
    const observer = readColourList(daylight.replace('2_Degree', '10_Degree'));
    expect(observer.ok ? 'accepted' : observer.issues[0].found).toBe('colours for the 10° observer');
    const table = readColourList(
      CGATS.replace('NUMBER_OF_FIELDS', 'ILLUMINATION_NAME "D65"\nNUMBER_OF_FIELDS'),
    );
    expect(table.ok ? 'accepted' : table.issues[0].found).toBe('colours for D65');
  });

  it('beyond all surfaces are refused, whatever form they come in', () => {
    const white = CXF.replace('>32.5<', '>110.5<');
    const read = readColourList(white);
    expect(read.ok ? 'accepted' : read.issues[0].path).toBe('Tide blue');
    expect(colours(CXF.replace('>32.5<', '>109.9<'))).toHaveLength(2);
  });

  it.each([
    ['', 'the columns name, L, a, b'],
    ['name,L,a,b\n', 'at least one colour'],
    ['name,L,a,b\nred,45,x,3', 'L 0 to 110 and a, b as numbers'],
    [`name,L,a,b\n${'x,50,0,0\n'.repeat(2001)}`, '2000 colours at most'],
    ['<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>', 'no document type and no entities'],
    ['<CxF><Resources>', 'well-formed XML'],
    ['<CxF/>', 'objects under CxF/Resources/ObjectCollection'],
  ])('refuse in words: %.40s', (text, expected) => {
    const read = readColourList(text);
    expect(read.ok ? 'accepted' : read.issues[0].expected).toBe(expected);
  });

  it('never throw, whatever is cut or changed', () => {
    const random = createRandom(3);
    for (let i = 0; i < 300; i++) {
      const source = [CXF, CGATS, 'name,L,a,b\nred,45,60,40'][i % 3];
      const at = random.below(source.length);
      const text =
        i % 2 === 0
          ? source.slice(0, at)
          : source.slice(0, at) + String.fromCharCode(random.below(256)) + source.slice(at + 1);
      const read = readColourList(text);
      if (read.ok) for (const { lab } of read.value) expect(lab.every(Number.isFinite)).toBe(true);
      else expect(read.issues[0].expected).not.toBe('');
    }
  });
});
