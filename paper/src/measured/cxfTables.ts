import { MEASURED_LIMITS } from '@melto/core/measured/measuredTable';
import type { MeasuredRow, MeasuredTable } from '@melto/core/measured/measuredTable';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { cxfGrid, cxfKeywords, cxfList, cxfWord, readCxfDocument, cxfChild } from '../cxfDocument.ts';
import type { CxfDocument, CxfNode } from '../cxfDocument.ts';

/** Device values that an object may hold, with the elements of their channels. */
const DEVICES = [
  {
    element: 'ColorCMYK',
    channels: ['Cyan', 'Magenta', 'Yellow', 'Black'],
    fields: ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K'],
  },
  { element: 'ColorRGB', channels: ['R', 'G', 'B'], fields: ['RGB_R', 'RGB_G', 'RGB_B'] },
] as const;
const COLOURS = [
  { element: 'ColorCIELab', parts: ['L', 'A', 'B'], fields: ['LAB_L', 'LAB_A', 'LAB_B'] },
  { element: 'ColorCIEXYZ', parts: ['X', 'Y', 'Z'], fields: ['XYZ_X', 'XYZ_Y', 'XYZ_Z'] },
  { element: 'ColorCIELCh', parts: ['L', 'C', 'H'], fields: ['LCH_L', 'LCH_C', 'LCH_H'] },
] as const;

/** Spectra of prints, or of lights. */
type Spectrum = 'ReflectanceSpectrum' | 'EmissiveSpectrum';

/** The tables of a CxF3 file: one for each colour specification that its objects name. */
export function cxfTables(
  text: string,
  kind: Spectrum = 'ReflectanceSpectrum',
): Result<readonly MeasuredTable[]> {
  const read = readCxfDocument(text);
  if (!read.ok) return read;
  const document = read.value;
  const specifications = new Set<string>();
  for (const object of document.objects) {
    const values = cxfChild(object, 'ColorValues');
    for (const element of [kind, ...COLOURS.map((colour) => colour.element)])
      for (const node of cxfList(values, element)) specifications.add(cxfWord(node['@ColorSpecification']));
  }
  if (specifications.size === 0)
    return failure({
      code: 'measured.no-colours',
      path: 'CxF',
      expected: 'spectra, Lab, LCh or XYZ',
      found: 'none',
    });
  if (specifications.size > MEASURED_LIMITS.tables)
    return failure({
      code: 'measured.too-large',
      path: 'CxF',
      expected: `at most ${MEASURED_LIMITS.tables} colour specifications`,
      found: String(specifications.size),
    });
  const tables: MeasuredTable[] = [];
  for (const id of specifications) {
    const table = tableOf(document, id, kind);
    if (!table.ok) return table;
    tables.push(table.value);
  }
  return success(tables);
}

function tableOf(
  { objects, specifications, information }: CxfDocument,
  id: string,
  kind: Spectrum,
): Result<MeasuredTable> {
  const cells: Map<string, string>[] = [];
  const fields = new Set<string>();
  for (const [i, object] of objects.entries()) {
    const row = new Map<string, string>();
    const values = cxfChild(object, 'ColorValues');
    const own = (element: string): CxfNode | undefined =>
      cxfList(values, element).find((node) => cxfWord(node['@ColorSpecification']) === id);
    const spectrum = own(kind);
    if (spectrum !== undefined) {
      const grid = cxfGrid(spectrum, specifications);
      if (grid === undefined)
        return failure({
          code: 'measured.spectral-grid',
          path: `object ${String(i + 1)}`,
          expected:
            'a WavelengthRange with its increment in the colour specification, and where the spectrum begins',
          found: 'no wavelengths',
        });
      for (const [band, value] of cxfWord(spectrum).trim().split(/\s+/).entries())
        row.set(`NM${String(grid.startNm + band * grid.stepNm)}`, value);
    }
    for (const { element, parts, fields: names } of COLOURS) {
      const node = own(element);
      if (node !== undefined) parts.forEach((part, axis) => row.set(names[axis], cxfWord(node[part])));
    }
    if (row.size === 0) continue;
    const devices = cxfChild(object, 'DeviceColorValues');
    for (const { element, channels, fields: names } of DEVICES) {
      const node = cxfChild(devices, element);
      if (node !== undefined)
        channels.forEach((channel, axis) => row.set(names[axis], cxfWord(node[channel])));
    }
    row.set('SAMPLE_ID', cxfWord(object['@Id']) || String(i + 1));
    row.set('SAMPLE_NAME', cxfWord(object['@Name']));
    for (const name of row.keys()) fields.add(name);
    if (fields.size > MEASURED_LIMITS.fields || fields.size * cells.length > MEASURED_LIMITS.values)
      return failure({
        code: 'measured.too-large',
        path: 'CxF',
        expected: `at most ${MEASURED_LIMITS.fields} columns and ${MEASURED_LIMITS.values} values`,
        found: 'more',
      });
    cells.push(row);
  }
  const names = [...fields];
  const rows = cells.map((row, i): MeasuredRow => ({
    line: i + 1,
    cells: names.map((name) => row.get(name) ?? ''),
  }));
  return success({
    form: 'CxF',
    keywords: cxfKeywords(specifications.get(id), information),
    fields: names,
    rows,
    damaged: [],
  });
}
