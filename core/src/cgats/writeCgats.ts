import type { CgatsTable } from './cgatsTable.ts';
import { isNumericField, spectralFieldNm } from './fieldNames.ts';

/** Keywords that the standard defines and that need no KEYWORD line before their use. */
const STANDARD_KEYWORDS = new Set(
  (
    'ORIGINATOR FILE_DESCRIPTOR DESCRIPTOR CREATED MANUFACTURER PROD_DATE SERIAL MATERIAL INSTRUMENTATION ' +
    'MEASUREMENT_SOURCE PRINT_CONDITIONS SAMPLE_BACKING ILLUMINATION_NAME WEIGHTING_FUNCTION ' +
    'COMPUTATIONAL_PARAMETER TARGET_TYPE COLORANT TABLE_DESCRIPTOR TABLE_NAME KEYWORD FILTER POLARIZATION'
  ).split(' '),
);

const STANDARD_FIELD =
  /^(?:SAMPLE_ID|SAMPLE_NAME|STRING|RGB_[RGB]|CMYK_[CMYK]|LAB_[LABCHD]|XYZ_[XYZ]|D_(?:RED|GREEN|BLUE|VIS)|STDEV_\w+|MEAN_DE)$/;

/** Decimals a value is written with; enough that reading and writing again changes nothing. */
function decimals(field: string): number {
  if (/^(?:RGB_|CMYK|\dCLR)/i.test(field)) return 4;
  if (spectralFieldNm(field) !== undefined) return 5;
  if (/^D_/.test(field)) return 4;
  return 4;
}

function quote(text: string): string {
  return `"${text.replaceAll('"', '""').replace(/[\r\n]+/g, ' ')}"`;
}

/** Writes one table as CGATS.17 text; keywords and fields of our own are declared by KEYWORD lines. */
export function writeCgats(table: CgatsTable): string {
  const lines: string[] = [table.identifier === '' ? 'CGATS.17' : table.identifier, ''];
  const declared = new Set<string>();
  const declare = (name: string): void => {
    if (!declared.has(name)) lines.push(`KEYWORD ${quote(name)}`);
    declared.add(name);
  };
  for (const { name, value } of table.keywords) {
    if (name === 'KEYWORD') continue;
    if (!STANDARD_KEYWORDS.has(name)) declare(name);
    lines.push(`${name} ${quote(value)}`);
  }
  for (const column of table.columns) if (!STANDARD_FIELD.test(column.name)) declare(column.name);
  lines.push(`NUMBER_OF_FIELDS ${table.columns.length}`, 'BEGIN_DATA_FORMAT');
  lines.push(table.columns.map((column) => column.name).join('\t'), 'END_DATA_FORMAT');
  lines.push(`NUMBER_OF_SETS ${table.rowCount}`, 'BEGIN_DATA');
  const places = table.columns.map((column) => decimals(column.name));
  for (let row = 0; row < table.rowCount; row++)
    lines.push(
      table.columns
        .map((column, i) =>
          column.kind === 'number' && isNumericField(column.name)
            ? formatNumber(column.values[row], places[i])
            : wordOf(String(column.values[row])),
        )
        .join('\t'),
    );
  lines.push('END_DATA', '');
  return lines.join('\n');
}

function wordOf(text: string): string {
  return text === '' || /[\s"#]/.test(text) ? quote(text) : text;
}

function formatNumber(value: number, places: number): string {
  const text = value.toFixed(places);
  return Number(text) === 0 ? (0).toFixed(places) : text;
}
