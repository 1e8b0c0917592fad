import { failure } from '../result.ts';
import type { Result } from '../result.ts';
import { columnsOf } from './columns.ts';
import { toldConditions } from './conditions.ts';
import { interpretTable } from './interpretTable.ts';
import type { Answers, Measurement } from './measurement.ts';
import type { MeasuredTable } from './measuredTable.ts';

/**
 * Makes patches of the tables of a file. Device values and colours in two tables are joined by their ids; tables of
 * several modes become several sets; where more than one could be meant, the file asks which.
 */
export function interpretTables(
  tables: readonly MeasuredTable[],
  answers: Answers = {},
): Result<Measurement> {
  const held = tables.map((table) => ({ table, ...contents(table) }));
  const coloured = held.filter(({ colours }) => colours);
  if (coloured.length === 0) {
    const [first] = held;
    return first === undefined
      ? failure({ code: 'measured.no-data', expected: 'a table of measurements', found: 'none in the file' })
      : interpretTable(first.table, answers);
  }
  const readings = coloured.map(({ table, device }) => {
    const devices = device ? undefined : held.find((other) => other.device && sameRows(other.table, table));
    return devices === undefined ? table : joined(devices.table, table);
  });
  // Small tables beside a large one are references of the instrument or the like.
  const most = Math.max(...readings.map(({ rows }) => rows.length));
  const large = readings.filter(({ rows }) => rows.length >= most / 4);
  const left = readings.length - large.length;
  const said =
    left === 0 ? [] : [`${left === 1 ? 'A smaller table was' : `${left} smaller tables were`} not used.`];
  const modes = large.map(({ keywords }) => toldConditions(keywords).mode);
  if (large.length > 1 && modes.every((mode) => mode !== undefined) && new Set(modes).size === large.length) {
    const parts: Measurement[] = [];
    for (const table of large) {
      const part = interpretTable(table, answers);
      if (!part.ok) return part;
      parts.push(part.value);
    }
    return { ok: true, value: together(parts, said) };
  }
  const names = large.map((table, i) => tableName(table, i));
  const chosen = large.length === 1 ? 0 : names.indexOf(answers.table ?? '');
  const read = interpretTable(large[Math.max(0, chosen)], answers);
  if (!read.ok) return read;
  const value: Measurement = {
    ...read.value,
    notes: [...said, ...read.value.notes],
    questions:
      chosen < 0 ? [{ asks: 'table', options: names }, ...read.value.questions] : read.value.questions,
  };
  return { ok: true, value };
}

function contents(table: MeasuredTable): { readonly colours: boolean; readonly device: boolean } {
  const kinds = columnsOf(table.fields).map(({ kind }) => kind);
  return {
    colours: kinds.some((kind) => kind === 'colour' || kind === 'spectral' || kind === 'reflectance'),
    device: kinds.includes('device'),
  };
}

const idsOf = (table: MeasuredTable): readonly string[] | undefined => {
  const place = columnsOf(table.fields).findIndex(({ kind }) => kind === 'id');
  return place < 0 ? undefined : table.rows.map(({ cells }) => cells[place].trim());
};

/** Two tables hold the same patches where their ids are the same, each once. */
function sameRows(a: MeasuredTable, b: MeasuredTable): boolean {
  const [own, other] = [idsOf(a), idsOf(b)];
  if (own === undefined || other === undefined) return false;
  const known = new Set(own);
  return (
    known.size === own.length && new Set(other).size === other.length && other.every((id) => known.has(id))
  );
}

/** The rows of the second table with the cells of the first before them. */
function joined(devices: MeasuredTable, colours: MeasuredTable): MeasuredTable {
  const own = idsOf(devices) ?? [];
  const byId = new Map(own.map((id, row) => [id, devices.rows[row].cells]));
  const idPlace = columnsOf(colours.fields).findIndex(({ kind }) => kind === 'id');
  return {
    ...colours,
    keywords: [...colours.keywords, ...devices.keywords],
    fields: [...devices.fields, ...colours.fields.filter((_, i) => i !== idPlace)],
    rows: colours.rows.map(({ line, cells }) => ({
      line,
      cells: [...(byId.get(cells[idPlace].trim()) ?? []), ...cells.filter((_, i) => i !== idPlace)],
    })),
    damaged: [...devices.damaged, ...colours.damaged],
  };
}

function together(parts: readonly Measurement[], said: readonly string[]): Measurement {
  const once = <T>(list: readonly T[], key: (item: T) => string): T[] => [
    ...new Map(list.map((item) => [key(item), item])).values(),
  ];
  return {
    modes: parts.flatMap(({ modes }) => modes),
    told: { ...parts[0].told, mode: undefined },
    questions: once(
      parts.flatMap(({ questions }) => questions),
      ({ asks }) => asks,
    ),
    unused: [...new Set(parts.flatMap(({ unused }) => unused))],
    damaged: parts.flatMap(({ damaged }) => damaged),
    notes: [...said, ...new Set(parts.flatMap(({ notes }) => notes))],
  };
}

function tableName({ keywords, rows, fields }: MeasuredTable, place: number): string {
  const mode = toldConditions(keywords).mode;
  return `table ${place + 1}: ${rows.length} rows${mode === undefined ? '' : `, ${mode}`}, ${fields.slice(0, 4).join(', ')} …`;
}
