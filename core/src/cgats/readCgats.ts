import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import type { CgatsColumn, CgatsKeyword, CgatsTable } from './cgatsTable.ts';
import { isNumericField } from './fieldNames.ts';
import { parseNumber, splitFields, textLines } from './textScanner.ts';
import type { TextLine } from './textScanner.ts';

/** Caps that keep a hostile file from using up memory. */
export const CGATS_LIMITS = {
  characters: 16_000_000,
  fields: 500,
  values: 1_500_000,
  tables: 64,
  keywords: 2_000,
} as const;

/** Thrown inside this reader only; `readCgats` turns it into a failure. */
class Damage extends Error {
  constructor(readonly issue: Issue) {
    super(issue.code);
  }
}

/**
 * Reads all tables of a CGATS.17 text. Any order of keywords, tabs or spaces, quoted strings, comments, all line
 * ends, byte-order mark and decimal commas are taken; a wrong count, a missing section or a value that is no
 * number is an issue with its line.
 */
export function readCgats(text: string): Result<readonly CgatsTable[]> {
  if (text.length > CGATS_LIMITS.characters)
    return failure({
      code: 'cgats.too-large',
      expected: `at most ${CGATS_LIMITS.characters} characters`,
      found: `${text.length}`,
    });
  try {
    const reader = new TableReader(textLines(text));
    const tables: CgatsTable[] = [];
    let values = 0;
    for (let table = reader.nextTable(); table !== undefined; table = reader.nextTable()) {
      tables.push(table);
      values += table.rowCount * table.columns.length;
      if (tables.length > CGATS_LIMITS.tables || values > CGATS_LIMITS.values)
        throw new Damage({
          code: 'cgats.too-large',
          expected: `at most ${CGATS_LIMITS.tables} tables and ${CGATS_LIMITS.values} values`,
          found: 'more',
        });
    }
    if (tables.length === 0)
      return failure({
        code: 'cgats.no-data',
        line: 1,
        expected: 'a BEGIN_DATA section',
        found: 'none in the file',
      });
    return success(tables);
  } catch (error) {
    if (error instanceof Damage) return failure(error.issue);
    throw error;
  }
}

class TableReader {
  #next: IteratorResult<TextLine>;

  constructor(private readonly lines: Iterator<TextLine>) {
    this.#next = lines.next();
  }

  #take(): TextLine | undefined {
    const current = this.#next;
    if (current.done === true) return undefined;
    this.#next = this.lines.next();
    return current.value;
  }

  nextTable(): CgatsTable | undefined {
    let identifier = '';
    const keywords: CgatsKeyword[] = [];
    let fields: string[] | undefined;
    let fieldLine = 0;
    let declaredFields: number | undefined;
    let declaredRows: number | undefined;
    for (let line = this.#take(); line !== undefined; line = this.#take()) {
      const words = splitFields(line.text);
      const head = words[0].toUpperCase();
      if (head === 'BEGIN_DATA_FORMAT') {
        fieldLine = line.number;
        fields = this.#readFormat(line.number);
      } else if (head === 'BEGIN_DATA') {
        if (fields === undefined || fields.length === 0)
          throw new Damage({
            code: 'cgats.no-format',
            line: line.number,
            path: 'BEGIN_DATA',
            expected: 'a BEGIN_DATA_FORMAT section with field names before it',
            found: fields === undefined ? 'none' : 'an empty one',
          });
        if (declaredFields !== undefined && declaredFields !== fields.length)
          throw new Damage({
            code: 'cgats.field-count',
            line: fieldLine,
            path: 'NUMBER_OF_FIELDS',
            expected: `${declaredFields} field names`,
            found: `${fields.length}`,
          });
        const data = this.#readData(fields, line.number, declaredRows);
        return { identifier, keywords, ...data };
      } else if (head === 'NUMBER_OF_FIELDS') declaredFields = this.#count(words[1], line, head);
      else if (head === 'NUMBER_OF_SETS') declaredRows = this.#count(words[1], line, head);
      else if (identifier === '' && keywords.length === 0 && words.length === 1) identifier = words[0];
      else if (head.startsWith('END_DATA'))
        throw new Damage({
          code: 'cgats.unexpected-end',
          line: line.number,
          expected: 'its BEGIN before it',
          found: words[0],
        });
      else {
        if (keywords.length >= CGATS_LIMITS.keywords)
          throw new Damage({
            code: 'cgats.too-large',
            line: line.number,
            expected: `at most ${CGATS_LIMITS.keywords} keywords`,
            found: 'more',
          });
        keywords.push({ name: words[0], value: words.slice(1).join(' ') });
      }
    }
    if (fields !== undefined)
      throw new Damage({
        code: 'cgats.no-data',
        line: fieldLine,
        expected: 'a BEGIN_DATA section after the data format',
        found: 'the end of the file',
      });
    return undefined;
  }

  #count(word: string | undefined, line: TextLine, path: string): number {
    const value = word === undefined ? undefined : parseNumber(word);
    if (value === undefined || !Number.isInteger(value) || value < 0)
      throw new Damage({
        code: 'cgats.bad-count',
        line: line.number,
        path,
        expected: 'a whole number',
        found: word ?? 'nothing',
      });
    return value;
  }

  #readFormat(start: number): string[] {
    const fields: string[] = [];
    for (let line = this.#take(); line !== undefined; line = this.#take()) {
      const words = splitFields(line.text);
      if (words[0].toUpperCase() === 'END_DATA_FORMAT') return fields;
      for (const word of words) fields.push(word);
      if (fields.length > CGATS_LIMITS.fields)
        throw new Damage({
          code: 'cgats.too-many-fields',
          line: line.number,
          expected: `at most ${CGATS_LIMITS.fields} fields`,
          found: 'more',
        });
    }
    throw new Damage({
      code: 'cgats.unterminated',
      line: start,
      path: 'BEGIN_DATA_FORMAT',
      expected: 'END_DATA_FORMAT',
      found: 'the end of the file',
    });
  }

  #readData(
    fields: string[],
    start: number,
    declaredRows: number | undefined,
  ): { columns: CgatsColumn[]; rowCount: number } {
    const collector = new ColumnCollector(fields);
    let pending: string[] = [];
    let rowLine = start;
    let ended = false;
    for (let line = this.#take(); line !== undefined; line = this.#take()) {
      const words = splitFields(line.text);
      if (words[0].toUpperCase() === 'END_DATA') {
        ended = true;
        break;
      }
      if (pending.length === 0) {
        rowLine = line.number;
        pending = words;
      } else pending = pending.concat(words);
      if (pending.length > fields.length)
        throw new Damage({
          code: 'cgats.row-length',
          line: rowLine,
          expected: `${fields.length} values, one for each field`,
          found: `${pending.length}`,
        });
      if (pending.length === fields.length) {
        collector.add(pending, rowLine);
        pending = [];
      }
    }
    if (pending.length > 0)
      throw new Damage({
        code: 'cgats.row-length',
        line: rowLine,
        expected: `${fields.length} values, one for each field`,
        found: `${pending.length}`,
      });
    if (!ended)
      throw new Damage({
        code: 'cgats.unterminated',
        line: start,
        path: 'BEGIN_DATA',
        expected: 'END_DATA',
        found: 'the end of the file',
      });
    if (declaredRows !== undefined && declaredRows !== collector.rowCount)
      throw new Damage({
        code: 'cgats.set-count',
        line: start,
        path: 'NUMBER_OF_SETS',
        expected: `${declaredRows} rows`,
        found: `${collector.rowCount}`,
      });
    return { columns: collector.columns(), rowCount: collector.rowCount };
  }
}

class ColumnCollector {
  rowCount = 0;
  readonly #numeric: boolean[];
  readonly #numbers: number[][] = [];
  readonly #texts: string[][] = [];

  constructor(private readonly fields: readonly string[]) {
    this.#numeric = fields.map(isNumericField);
    for (let i = 0; i < fields.length; i++) {
      this.#numbers.push([]);
      this.#texts.push([]);
    }
  }

  add(words: readonly string[], line: number): void {
    if ((this.rowCount + 1) * this.fields.length > CGATS_LIMITS.values)
      throw new Damage({
        code: 'cgats.too-large',
        line,
        expected: `at most ${CGATS_LIMITS.values} values`,
        found: 'more',
      });
    for (let i = 0; i < words.length; i++) {
      if (!this.#numeric[i]) {
        this.#texts[i].push(words[i]);
        continue;
      }
      const value = parseNumber(words[i]);
      if (value === undefined)
        throw new Damage({
          code: 'cgats.not-a-number',
          line,
          path: this.fields[i],
          expected: 'a number',
          found: words[i].slice(0, 40),
        });
      this.#numbers[i].push(value);
    }
    this.rowCount++;
  }

  columns(): CgatsColumn[] {
    return this.fields.map((name, i) =>
      this.#numeric[i]
        ? { name, kind: 'number', values: Float64Array.from(this.#numbers[i]) }
        : { name, kind: 'text', values: this.#texts[i] },
    );
  }
}
