import { patchLayoutOf } from '../cgats/patchLayout.ts';
import { channelCount, sameProcess } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { parseNumber } from '../cgats/textScanner.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { columnsOf } from './columns.ts';
import type { ColumnMeaning, Mode } from './columns.ts';
import { bandpassCorrected } from '../spectral/bandpass.ts';
import { toldConditions, foreignLight } from './conditions.ts';
import { deviceScale, deviceShare } from '../device/deviceScale.ts';
import type { DeviceScale } from '../device/deviceScale.ts';
import type { Answers, MeasuredMode, Measurement, Question } from './measurement.ts';
import type { DamagedRow, MeasuredRow, MeasuredTable } from './measuredTable.ts';
import { coloursOf } from './tableColours.ts';
import type { Columns } from './tableColours.ts';

const BANDPASS_NOTE = 'The bandpass of the instrument was taken out of the spectra.';

const MODES: readonly Mode[] = ['M0', 'M1', 'M2', 'M3'];

type Of<K extends ColumnMeaning['kind']> = Extract<ColumnMeaning, { kind: K }>;

/** Makes patches of a table. What it leaves open comes back as questions; what it cannot hold is refused. */
export function interpretTable(table: MeasuredTable, answers: Answers = {}): Result<Measurement> {
  const columns = columnsOf(table.fields);
  const notes: string[] = [];
  const questions: Question[] = [];
  const told = toldConditions(table.keywords);
  const damaged: DamagedRow[] = [...table.damaged];

  const device = deviceColumns(columns);
  if (!device.ok) return device;
  const modes = modesOf(columns);
  const needed = new Set([
    ...(device.value?.places ?? []),
    ...columns.flatMap(({ kind }, i) =>
      kind === 'colour' || kind === 'spectral' || kind === 'reflectance' || kind === 'wavelength' ? [i] : [],
    ),
  ]);
  // A column without a single value holds nothing.
  const empty = [...needed].filter((i) => table.rows.every(({ cells }) => cells[i].trim() === ''));
  for (const i of empty) needed.delete(i);
  const { rows, numbers } = numbersOf(table.rows, needed, table.fields, damaged);
  if (rows.length === 0)
    return failure({
      code: 'measured.no-rows',
      line: damaged[0]?.line ?? 1,
      expected: 'at least one row of numbers',
      found: damaged[0]?.why ?? 'none',
    });

  let values: { readonly process: Process; readonly values: Float64Array } | undefined;
  if (device.value !== undefined) {
    const found = shares(device.value, numbers, rows, table.fields, answers.scale);
    if (!found.ok) return found;
    if (found.value.options === undefined) {
      values = found.value;
      const { scale } = found.value;
      if (scale !== device.value.process.scale)
        notes.push(`${device.value.process.name} values count from 0 to ${scale}.`);
    } else
      questions.push({
        asks: 'scale',
        process: device.value.process.name,
        channels: channelCount(device.value.process),
        options: found.value.options,
      });
    if (device.value.counted)
      notes.push('The file counts its inks and does not name them; their order is taken as it stands.');
  }

  const colours: MeasuredMode[] = [];
  let computed = false;
  const ids = textOf(columns, rows, 'id') ?? rows.map((_, i) => String(i + 1));
  const names = textOf(columns, rows, 'name');
  const places = placesOf(columns, rows);
  const layout = patchLayoutOf(
    textOf(columns, rows, 'page'),
    textOf(columns, rows, 'strip'),
    textOf(columns, rows, 'place'),
  );
  for (const own of modes) {
    const found = coloursOf(columns, numbers, rows.length, own, empty);
    if (!found.ok) return found;
    const { xyz, lab } = found.value;
    const asRead = found.value.spectra;
    const spectra =
      asRead !== undefined && answers.bandpass === 'take out' ? bandpassCorrected(asRead) : asRead;
    notes.push(...found.value.notes.filter((note) => !notes.includes(note)));
    if (spectra !== asRead && !notes.includes(BANDPASS_NOTE)) notes.push(BANDPASS_NOTE);
    if (spectra === undefined && xyz === undefined && lab === undefined) continue;
    if (spectra === undefined) computed = true;
    const mode = own ?? told.mode ?? answers.mode;
    colours.push({
      mode,
      places,
      set: {
        ...{ ids, names, layout, process: values?.process, device: values?.values, xyz, lab, spectra },
        conditions: {
          ...{ mode, filter: told.filter, backing: told.backing, instrument: told.instrument },
          illuminant: told.illuminant,
          observer: told.observer === undefined ? undefined : `${told.observer}°`,
        },
        title: keyword(table, 'DESCRIPTOR') ?? keyword(table, 'FILE_DESCRIPTOR'),
        originator: keyword(table, 'ORIGINATOR'),
        created: keyword(table, 'CREATED'),
        notes: [],
      },
    });
  }
  if (colours.length === 0)
    return failure({
      code: 'measured.no-colours',
      expected: 'spectra, XYZ, Lab or LCh',
      found: columns.some(({ kind }) => kind === 'density')
        ? 'densities only'
        : `no colours, the columns ${table.fields.slice(0, 12).join(', ')}`,
    });
  const alike = values === undefined ? undefined : colours.find(({ set }) => allAlike(values.values, set));
  if (alike !== undefined)
    return failure({
      code: 'measured.all-alike',
      expected: 'colours that differ where device values do',
      found: `the same colour for all ${rows.length} patches`,
    });
  if (computed) {
    const foreign = foreignLight(told);
    if (foreign !== undefined)
      return failure({
        code: 'measured.other-light',
        expected: 'colours for D50 and the 2° observer over a perfect diffuser, or spectra',
        found: foreign,
      });
    if ((told.illuminant === undefined || told.observer === undefined) && answers.light === undefined)
      questions.push({ asks: 'light', options: ['D50 2°'] });
  }
  if (colours.some(({ mode }) => mode === undefined)) questions.push({ asks: 'mode', options: MODES });
  const unused = table.fields.filter(
    (_, i) =>
      ['unknown', 'spread', 'density', 'row', 'column'].includes(columns[i].kind) || empty.includes(i),
  );
  return success({
    modes: colours,
    told,
    questions,
    unused,
    damaged: damaged.sort((a, b) => a.line - b.line),
    notes,
  });
}

/** Patches from which on equal colours are no chance. */
const LEAST_ALIKE = 8;

/** Whether all patches have one and the same colour though they were printed with different values: no print has. */
function allAlike(device: Float64Array, { ids, spectra, xyz, lab }: MeasuredMode['set']): boolean {
  const rows = ids.length;
  const colours = spectra?.values ?? xyz ?? lab;
  const same = (values: ArrayLike<number>): boolean => {
    const columns = values.length / rows;
    for (let i = columns; i < values.length; i++) if (values[i] !== values[i % columns]) return false;
    return true;
  };
  return rows >= LEAST_ALIKE && colours !== undefined && same(colours) && !same(device);
}

function keyword({ keywords }: MeasuredTable, name: string): string | undefined {
  const value = keywords.find((word) => word.name.toUpperCase() === name)?.value;
  return value === '' ? undefined : value;
}

interface DeviceColumns {
  readonly process: Process;
  readonly places: readonly number[];
  readonly counted: boolean;
}

/** The columns of the process with the most channels; all of its channels must be there. */
function deviceColumns(columns: Columns): Result<DeviceColumns | undefined> {
  const found = columns.filter((column): column is Of<'device'> => column.kind === 'device');
  const [process] = found.map((column) => column.process).sort((a, b) => channelCount(b) - channelCount(a));
  if (process === undefined) return success(undefined);
  const places = process.channels.map((_, channel) =>
    columns.findIndex(
      (column) =>
        column.kind === 'device' && column.channel === channel && sameProcess(column.process, process),
    ),
  );
  if (places.includes(-1))
    return failure({
      code: 'measured.missing-channel',
      path: process.channels[places.indexOf(-1)].name,
      expected: `a column for each channel of ${process.name}`,
      found: 'none for it',
    });
  return success({
    process,
    places,
    counted: process.channels.every(({ name }, i) => name === `ink ${i + 1}`),
  });
}

/** The modes that columns are named by; undefined for columns without one. */
function modesOf(columns: Columns): (Mode | undefined)[] {
  const found = new Set<Mode | undefined>();
  for (const column of columns)
    if (column.kind === 'colour' || column.kind === 'spectral') found.add(column.mode);
    else if (column.kind === 'reflectance') found.add(undefined);
  return found.size === 0 ? [undefined] : [...found];
}

/** Numbers of the columns that are needed, by column; rows in which one of them is missing are left out and named. */
function numbersOf(
  all: readonly MeasuredRow[],
  needed: ReadonlySet<number>,
  fields: readonly string[],
  damaged: DamagedRow[],
): { readonly rows: readonly MeasuredRow[]; readonly numbers: ReadonlyMap<number, Float64Array> } {
  const rows: MeasuredRow[] = [];
  const numbers = new Map([...needed].map((i) => [i, new Float64Array(all.length)]));
  for (const row of all) {
    let why: string | undefined;
    for (const [i, values] of numbers) {
      const value = parseNumber(row.cells[i].trim());
      if (value === undefined) {
        why =
          row.cells[i].trim() === ''
            ? `${fields[i]} is empty`
            : `${fields[i]} is ${row.cells[i].slice(0, 40)}`;
        break;
      }
      values[rows.length] = value;
    }
    if (why === undefined) rows.push(row);
    else damaged.push({ line: row.line, why });
  }
  return { rows, numbers: new Map([...numbers].map(([i, values]) => [i, values.subarray(0, rows.length)])) };
}

function shares(
  { process, places }: DeviceColumns,
  numbers: ReadonlyMap<number, Float64Array>,
  rows: readonly MeasuredRow[],
  fields: readonly string[],
  answered: DeviceScale | undefined,
): Result<
  | {
      readonly process: Process;
      readonly values: Float64Array;
      readonly scale: DeviceScale;
      readonly options?: undefined;
    }
  | { readonly options: readonly DeviceScale[] }
> {
  const written = places.map((place) => numbers.get(place) ?? new Float64Array(rows.length));
  const found = deviceScale(
    process,
    written.flatMap((column) => [...column]),
  );
  const [first] = written;
  const odd = (why: string): Result<never> =>
    failure({
      code: 'measured.device-range',
      path: fields[places[0]],
      expected: 'values from 0 to 1, 100, 255 or 65535',
      found: why,
    });
  if (found === undefined || first === undefined) return odd('values outside of them');
  const scale = found.clear ?? answered;
  if (scale === undefined) return success({ options: found.options ?? [] });
  const values = new Float64Array(rows.length * places.length);
  for (let row = 0; row < rows.length; row++)
    for (const [channel, column] of written.entries()) {
      const share = deviceShare(column[row], scale);
      if (share === undefined) return odd(`${column[row]} in line ${rows[row].line}`);
      values[row * places.length + channel] = share;
    }
  return success({ process, values, scale });
}

function textOf(
  columns: Columns,
  rows: readonly MeasuredRow[],
  kind: ColumnMeaning['kind'],
): readonly string[] | undefined {
  const place = columns.findIndex((column) => column.kind === kind);
  return place < 0 ? undefined : rows.map(({ cells }) => cells[place].trim());
}

/** Where each patch stands on paper, as `A1`: in a column of its own, or in one for its letter and one for its number. */
function placesOf(columns: Columns, rows: readonly MeasuredRow[]): readonly string[] | undefined {
  const whole = textOf(columns, rows, 'place');
  if (whole !== undefined) return whole;
  const row = textOf(columns, rows, 'row');
  const column = textOf(columns, rows, 'column');
  if (row === undefined || column === undefined) return undefined;
  return row.map((word, i) => (/^[a-z]+$/i.test(column[i]) ? `${column[i]}${word}` : `${word}${column[i]}`));
}
