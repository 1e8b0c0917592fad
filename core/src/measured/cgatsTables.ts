import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { splitFields, textLines } from '../cgats/textScanner.ts';
import type { TextLine } from '../cgats/textScanner.ts';
import { columnOf } from './columns.ts';
import { MEASURED_LIMITS } from './measuredTable.ts';
import type { DamagedRow, MeasuredKeyword, MeasuredRow, MeasuredTable } from './measuredTable.ts';

type Line = TextLine;

/**
 * The tables of a CGATS.17 text in the dialects that programs write: cells parted by tabs may be empty and names may
 * hold spaces without quotes; rows may run over several lines. A row that does not fit its table is named and left out.
 * What makes a whole table doubtful (no format, no end, another number of rows than declared) is an issue.
 */
export function cgatsTables(text: string): Result<readonly MeasuredTable[]> {
  const lines = [...textLines(text)];
  const tables: MeasuredTable[] = [];
  let at = 0;
  let values = 0;
  while (at < lines.length) {
    const found = tableFrom(lines, at);
    if (!found.ok) return found;
    if (found.value === undefined) break;
    at = found.value.end;
    const { table } = found.value;
    values += table.rows.length * table.fields.length;
    tables.push(table);
    if (tables.length > MEASURED_LIMITS.tables || values > MEASURED_LIMITS.values)
      return failure({
        code: 'measured.too-large',
        expected: `at most ${MEASURED_LIMITS.tables} tables and ${MEASURED_LIMITS.values} values`,
        found: 'more',
      });
  }
  if (tables.length === 0)
    return failure({
      code: 'measured.no-data',
      line: 1,
      expected: 'a BEGIN_DATA section',
      found: 'none in the file',
    });
  return success(tables);
}

function tableFrom(
  lines: readonly Line[],
  from: number,
): Result<{ readonly table: MeasuredTable; readonly end: number } | undefined> {
  const keywords: MeasuredKeyword[] = [];
  let fields: readonly string[] = [];
  let byTabs = false;
  let declaredFields: number | undefined;
  let declaredRows: number | undefined;
  for (let at = from; at < lines.length; at++) {
    const line = lines[at];
    const words = splitFields(line.text);
    const head = words[0].toUpperCase();
    if (head === 'BEGIN_DATA_FORMAT') {
      const format = sectionFrom(lines, at, 'END_DATA_FORMAT');
      if (!format.ok) return format;
      byTabs = format.value.lines.some(({ raw }) => raw.includes('\t'));
      fields = format.value.lines.flatMap((part) => cellsOf(part, byTabs)).filter((name) => name !== '');
      at = format.value.end;
      if (fields.length > MEASURED_LIMITS.fields)
        return failure({
          code: 'measured.too-large',
          line: line.number,
          expected: `at most ${MEASURED_LIMITS.fields} fields`,
          found: String(fields.length),
        });
    } else if (head === 'BEGIN_DATA') {
      if (fields.length === 0)
        return failure({
          code: 'measured.no-format',
          line: line.number,
          path: 'BEGIN_DATA',
          expected: 'a BEGIN_DATA_FORMAT section with field names before it',
          found: 'none',
        });
      if (declaredFields !== undefined && declaredFields !== fields.length)
        return failure({
          code: 'measured.field-count',
          line: line.number,
          path: 'NUMBER_OF_FIELDS',
          expected: `${declaredFields} field names`,
          found: String(fields.length),
        });
      const data = sectionFrom(lines, at, 'END_DATA');
      if (!data.ok) return data;
      const { rows, damaged } = rowsOf(data.value.lines, fields, byTabs);
      const count = rows.length + damaged.length;
      if (declaredRows !== undefined && declaredRows !== count)
        return failure({
          code: 'measured.set-count',
          line: line.number,
          path: 'NUMBER_OF_SETS',
          expected: `${declaredRows} rows`,
          found: String(count),
        });
      return success({ table: { form: 'CGATS', keywords, fields, rows, damaged }, end: data.value.end + 1 });
    } else if (head === 'NUMBER_OF_FIELDS') declaredFields = countOf(words[1]);
    else if (head === 'NUMBER_OF_SETS') declaredRows = countOf(words[1]);
    else if (keywords.length < MEASURED_LIMITS.keywords)
      keywords.push({ name: words[0], value: words.slice(1).join(' ') });
  }
  return fields.length === 0
    ? success(undefined)
    : failure({
        code: 'measured.no-data',
        line: lines[lines.length - 1].number,
        expected: 'a BEGIN_DATA section after the data format',
        found: 'the end of the file',
      });
}

function countOf(word: string | undefined): number | undefined {
  return word !== undefined && /^\d{1,9}$/.test(word) ? Number(word) : undefined;
}

/** The lines between a BEGIN at `from` and its END. */
function sectionFrom(
  lines: readonly Line[],
  from: number,
  ending: string,
): Result<{ readonly lines: readonly Line[]; readonly end: number }> {
  const isEnd = ({ text }: Line): boolean =>
    text.length < 40 && splitFields(text)[0].toUpperCase() === ending;
  for (let end = from + 1; end < lines.length; end++)
    if (isEnd(lines[end])) return success({ lines: lines.slice(from + 1, end), end });
  return failure({
    code: 'measured.unterminated',
    line: lines[from].number,
    path: splitFields(lines[from].text)[0],
    expected: ending,
    found: 'the end of the file',
  });
}

/** Tabs keep empty cells and spaces in names; a line without tabs is parted at spaces. */
function cellsOf({ text, raw }: Line, byTabs: boolean): string[] {
  if (!byTabs || !raw.includes('\t')) return splitFields(text);
  return raw.split('\t').map((cell) => {
    const word = cell.trim();
    return word.length > 1 && word.startsWith('"') && word.endsWith('"') ? word.slice(1, -1) : word;
  });
}

function rowsOf(
  lines: readonly Line[],
  fields: readonly string[],
  byTabs: boolean,
): { readonly rows: readonly MeasuredRow[]; readonly damaged: readonly DamagedRow[] } {
  const rows: MeasuredRow[] = [];
  const damaged: DamagedRow[] = [];
  const cut = lines.map((part) => ({ line: part.number, cells: cellsOf(part, byTabs) }));
  const words = cut.reduce((sum, { cells }) => sum + cells.length, 0);
  // Rows that run over several lines: all words of the section make whole rows, and most lines are shorter than one.
  const wrapped =
    words % fields.length === 0 &&
    cut.every(({ cells }) => cells.length <= fields.length) &&
    cut.length > words / fields.length;
  if (wrapped) {
    const pending: string[] = [];
    let line = 0;
    for (const part of cut) {
      if (pending.length === 0) line = part.line;
      pending.push(...part.cells);
      while (pending.length >= fields.length) rows.push({ line, cells: pending.splice(0, fields.length) });
    }
    return { rows, damaged };
  }
  for (const { line, cells } of cut) {
    const row = fitted(cells, fields, byTabs);
    if (row === undefined) damaged.push({ line, why: `${cells.length} values, expected ${fields.length}` });
    else rows.push({ line, cells: row });
  }
  return { rows, damaged };
}

/** The cells of a row, one for each field: a trailing tab goes, and a name with spaces is put together again. */
function fitted(
  cells: readonly string[],
  fields: readonly string[],
  byTabs: boolean,
): readonly string[] | undefined {
  const over = cells.length - fields.length;
  if (over === 0) return cells;
  if (byTabs && over > 0 && cells.slice(fields.length).every((cell) => cell === ''))
    return cells.slice(0, fields.length);
  if (over < 0) return undefined;
  const texts = fields.flatMap((name, i) => (columnOf(name).kind === 'name' ? [i] : []));
  if (texts.length !== 1) return undefined;
  const [at] = texts;
  return [...cells.slice(0, at), cells.slice(at, at + over + 1).join(' '), ...cells.slice(at + over + 1)];
}
