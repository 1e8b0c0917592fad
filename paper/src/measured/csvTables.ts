import Papa from 'papaparse';
import { columnsOf } from '@melto/core/measured/columns';
import { MEASURED_LIMITS } from '@melto/core/measured/measuredTable';
import type {
  DamagedRow,
  MeasuredKeyword,
  MeasuredRow,
  MeasuredTable,
} from '@melto/core/measured/measuredTable';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';

/** Lines before the head that may hold a title or words on the measurement. */
const MOST_LINES_BEFORE = 60;

/** The table of a CSV or a pasted text: comma, semicolon or tab, a head line of names, words before it as keywords. */
export function csvTables(text: string, isHead: IsHead = isHeadOfColours): Result<readonly MeasuredTable[]> {
  const { data, head } = partedBestOf(text, isHead);
  if (head === undefined)
    return failure({
      code: 'measured.no-head',
      line: 1,
      expected: 'CGATS, CxF, or a table whose first line names its columns (as C, M, Y, K, L, a, b)',
      found: (data[0] ?? []).join(' ').trim().slice(0, 60) || 'nothing of that kind',
    });
  const fields = data[head].map((name) => name.trim());
  while (fields.at(-1) === '') fields.pop();
  if (fields.length > MEASURED_LIMITS.fields || data.length * fields.length > MEASURED_LIMITS.values)
    return failure({
      code: 'measured.too-large',
      expected: `at most ${MEASURED_LIMITS.fields} columns and ${MEASURED_LIMITS.values} values`,
      found: 'more',
    });
  const keywords = data.slice(0, head).flatMap((cells): MeasuredKeyword[] => {
    const [name = '', ...rest] = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
    const [, word = name, value = rest.join(' ')] =
      rest.length > 0 ? [] : (/^([^:=]+)[:=]\s*(.*)$/.exec(name) ?? []);
    return name === '' ? [] : [{ name: word.replace(/\s+/g, '_'), value: value.replace(/^[:=]\s*/, '') }];
  });
  const rows: MeasuredRow[] = [];
  const damaged: DamagedRow[] = [];
  for (const [i, cells] of data.slice(head + 1).entries()) {
    if (cells.every((cell) => cell.trim() === '')) continue;
    const line = head + i + 2;
    const over = cells.slice(fields.length);
    if (cells.length < fields.length || over.some((cell) => cell.trim() !== ''))
      damaged.push({ line, why: `${cells.length} values, expected ${fields.length}` });
    else rows.push({ line, cells: cells.slice(0, fields.length) });
  }
  return success([{ form: 'CSV', keywords, fields, rows, damaged }]);
}

/** Rows parted by the first mark that gives a head line: a comma may be a decimal one where tabs or semicolons part. */
function partedBestOf(
  text: string,
  isHead: IsHead,
): { readonly data: string[][]; readonly head: number | undefined } {
  for (const delimiter of ['\t', ';', ',', ' ']) {
    const parted = delimiter === ' ' ? text.replace(/^ +/gm, '').replace(/ +/g, ' ') : text;
    const { data } = Papa.parse<string[]>(parted, { delimiter, skipEmptyLines: false });
    const head = headLine(data, isHead);
    if (head !== undefined || delimiter === ' ') return { data, head };
  }
  return { data: [], head: undefined };
}

/** Whether names of columns are those of the table that is looked for. */
export type IsHead = (names: readonly string[]) => boolean;

/** Names that tell colours or spectra of prints. */
function isHeadOfColours(names: readonly string[]): boolean {
  const known = columnsOf(names).filter(
    ({ kind }) => kind === 'colour' || kind === 'spectral' || kind === 'device',
  );
  return known.length >= 3;
}

function headLine(data: readonly (readonly string[])[], isHead: IsHead): number | undefined {
  const at = data.slice(0, MOST_LINES_BEFORE).findIndex((names) => isHead(names));
  return at < 0 ? undefined : at;
}
