import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { xyzRange } from './colourRange.ts';
import type { ColourSpace, ColumnMeaning, Mode } from './columns.ts';
import type { MeasuredMode } from './measurement.ts';
import { spectraOfBands } from './spectra.ts';
import type { Band } from './spectra.ts';

export type Columns = readonly ColumnMeaning[];

export interface FoundColours {
  readonly spectra?: MeasuredMode['set']['spectra'];
  readonly xyz?: Float64Array;
  readonly lab?: Float64Array;
  readonly notes: readonly string[];
}

/** Spectra, XYZ and Lab of the columns that belong to a mode. */
export function coloursOf(
  columns: Columns,
  numbers: ReadonlyMap<number, Float64Array>,
  count: number,
  mode: Mode | undefined,
  empty: readonly number[],
): Result<FoundColours> {
  const notes: string[] = [];
  const bands = columns.flatMap((column, i): Band[] =>
    column.kind === 'spectral' && column.mode === mode && !empty.includes(i)
      ? [{ nm: column.nm, values: numbers.get(i) ?? new Float64Array(0) }]
      : [],
  );
  if (mode === undefined) {
    const pairs = pairedBands(columns, numbers);
    if (!pairs.ok) return pairs;
    bands.push(...pairs.value);
  }
  let spectra: FoundColours['spectra'];
  if (bands.length > 0) {
    const found = spectraOfBands(bands, count);
    if (!found.ok)
      return failure({
        code: 'measured.spectral-grid',
        path: 'spectra',
        expected: found.why,
        found: 'another grid',
      });
    ({ spectra } = found);
    notes.push(...found.notes);
  }
  const three = (space: ColourSpace): (Float64Array | undefined)[] =>
    [0, 1, 2].map((axis) => {
      const place = columns.findIndex(
        (column, i) =>
          column.kind === 'colour' &&
          column.space === space &&
          column.axis === axis &&
          column.mode === mode &&
          !empty.includes(i),
      );
      return place < 0 ? undefined : numbers.get(place);
    });
  const [labL, labA, labB] = three('lab');
  const [lchL = labL, chroma, hue] = three('lch');
  let lab = together([labL, labA, labB], count);
  if (lab === undefined && lchL !== undefined && chroma !== undefined && hue !== undefined)
    lab = together(
      [
        lchL,
        chroma.map((c, i) => c * Math.cos((hue[i] * Math.PI) / 180)),
        chroma.map((c, i) => c * Math.sin((hue[i] * Math.PI) / 180)),
      ],
      count,
    );
  const xyz = together(three('xyz'), count);
  if (xyz !== undefined) {
    const range = xyzRange(xyz);
    if (!range.ok) return range;
    if (range.value <= 1.5) {
      for (let i = 0; i < xyz.length; i++) xyz[i] *= 100;
      notes.push('XYZ values stand on the scale 0..1 and were multiplied by 100.');
    }
  }
  const odd =
    lab?.findIndex((value, i) => (i % 3 === 0 ? value < -2 || value > 125 : Math.abs(value) > 250)) ?? -1;
  if (odd >= 0 && lab !== undefined)
    return failure({
      code: 'measured.colour-range',
      path: 'Lab',
      expected: 'L* to 125, a* and b* within 250',
      found: String(lab[odd]),
    });
  return success({ spectra, xyz, lab, notes });
}

function together(columns: readonly (Float64Array | undefined)[], count: number): Float64Array | undefined {
  const [first, second, third] = columns;
  if (first === undefined || second === undefined || third === undefined) return undefined;
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i++) out.set([first[i], second[i], third[i]], 3 * i);
  return out;
}

/** Bands that stand as wavelength and value side by side; each wavelength must be the same in all rows. */
function pairedBands(columns: Columns, numbers: ReadonlyMap<number, Float64Array>): Result<Band[]> {
  const bands: Band[] = [];
  for (const [i, column] of columns.entries()) {
    if (column.kind !== 'wavelength' || columns[i + 1]?.kind !== 'reflectance') continue;
    const nm = numbers.get(i);
    const values = numbers.get(i + 1);
    if (nm === undefined || values === undefined) continue;
    const other = nm.find((own) => own !== nm[0]);
    if (other !== undefined)
      return failure({
        code: 'measured.spectral-grid',
        path: 'wavelengths',
        expected: 'the same wavelengths in all rows',
        found: `${nm[0]} and ${other} nm in one column`,
      });
    bands.push({ nm: nm[0], values });
  }
  return success(bands);
}
