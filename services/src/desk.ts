import { gatherRows } from '@melto/core/numerics/gatherRows';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import { labToHex } from '@melto/core/colour/srgb';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import type { Fault } from '@melto/core/faults/fault';
import { matchStrip } from '@melto/core/faults/matchStrip';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { listInstruments, setTile } from '@melto/store/devices';
import type { InstrumentRow } from '@melto/store/devices';
import { findPrint, findSheet, listRack, lockPrint, setMarked, setSheetProgress } from '@melto/store/prints';
import type { PrintRow, SheetRow } from '@melto/store/prints';
import {
  finishReading,
  insertReading,
  insertStrip,
  latestReading,
  listPasses,
  listStrips,
} from '@melto/store/readings';
import type { StripRow } from '@melto/store/readings';
import type { Sql } from '@melto/store/database';
import { loadChart } from './charts.ts';
import type { LoadedChart } from './charts.ts';
import { clockOffset, domainNow } from './clock.ts';
import { conditionOf } from './conditions.ts';
import type { ConditionRow } from './conditions.ts';
import { LOCAL_PERSON } from './context.ts';
import type { Services } from './context.ts';
import { expectedLab } from './expected.ts';
import { notFound, Problem } from './problem.ts';
import { assembleReading, faultsOf } from './readings.ts';
import { judgeCompleteCheck } from './shortChecks.ts';

export interface DeskInstrument {
  readonly name: string;
  readonly tileMs: number | null;
  readonly tileLifeMs: number;
  readonly modes: readonly string[];
}

export interface DeskStrip {
  readonly strip: number;
  /** Screen colours of what the patches should give. */
  readonly expected: readonly string[];
  readonly measured: readonly string[] | null;
  readonly reversed: boolean;
  readonly readMs: number | null;
}

export interface DeskState {
  readonly code: string;
  readonly title: string;
  readonly purpose: string;
  readonly conditionId: number;
  readonly conditionName: string;
  readonly page: number;
  readonly pages: number;
  /** Other sheets of the same print that wait to be read. */
  readonly openSheets: readonly string[];
  readonly printedMs: number;
  readonly restUntilMs: number;
  readonly nowMs: number;
  readonly offsetMs: number;
  readonly onRack: boolean;
  readonly readingId: number | null;
  readonly mode: string;
  readonly instrument: DeskInstrument;
  readonly marked: readonly number[];
  readonly strips: readonly DeskStrip[];
  readonly faults: readonly Fault[];
  /** The check that a complete short check led to. */
  readonly resultId: number | null;
}

interface DeskData {
  readonly sheet: SheetRow & { readonly printState: string };
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
  readonly instrument: InstrumentRow;
}

async function deskData(services: Services, code: string): Promise<DeskData> {
  const sheet = await findSheet(services.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const print = await findPrint(services.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${code}`);
  const [chart, condition, instruments] = await Promise.all([
    loadChart(services, print.chartId),
    conditionOf(services, print.conditionId),
    listInstruments(services.database),
  ]);
  const instrument = instruments[0];
  if (instrument === undefined)
    throw new Problem(
      'not-ready',
      'No instrument is connected.',
      'Connect one, or drop a measurement file here.',
    );
  return { sheet, print, chart, condition, instrument };
}

function hexRow(lab: Float64Array): string[] {
  return Array.from({ length: lab.length / 3 }, (_, i) =>
    labToHex([lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]),
  );
}

function stripLab(strip: StripRow): Float64Array {
  const xyz =
    strip.kind === 'xyz'
      ? strip.values.slice()
      : new Float64Array((strip.values.length / strip.grid.count) * 3);
  if (strip.kind === 'spectra')
    spectraToXyz(createXyzWeights(strip.grid, tableIlluminant('D50'), '2deg'), strip.values, xyz);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, xyz);
  return xyz;
}

export async function deskState(services: Services, code: string): Promise<DeskState> {
  const { sheet, print, chart, condition, instrument } = await deskData(services, code);
  const [offsetMs, waiting] = await Promise.all([clockOffset(services), listRack(services.database)]);
  const reading = await latestReading(services.database, print.id);
  const strips = reading === undefined ? [] : await listStrips(services.database, reading.id);
  const expected = await expectedLab(services, condition.id, print.deviceValues);
  const driver = services.instruments.get(instrument.driver);
  const resultId = reading === undefined ? null : await checkOf(services, reading.id);
  return {
    code,
    title: chart.title,
    purpose: chart.purpose,
    conditionId: condition.id,
    conditionName: `${condition.device} / ${condition.stock} / ${condition.mode}`,
    page: sheet.page,
    pages: chart.layout.pages.length,
    openSheets: waiting
      .filter((other) => other.printId === print.id && other.code !== code)
      .map((other) => other.code),
    printedMs: print.printedMs,
    restUntilMs: print.restUntilMs,
    nowMs: services.now() + offsetMs,
    offsetMs,
    onRack: sheet.onRack,
    readingId: reading?.id ?? null,
    mode: reading?.mode ?? 'M1',
    instrument: {
      name: instrument.name,
      tileMs: instrument.tileMs,
      tileLifeMs: driver?.tileLifeMs ?? 0,
      modes: driver?.modes ?? [],
    },
    marked: sheet.marked,
    strips: chart.layout.pages[sheet.page - 1].map((rows, index) => {
      const read = strips.find((strip) => strip.page === sheet.page && strip.strip === index + 1);
      return {
        strip: index + 1,
        expected: hexRow(gatherRows(expected, rows, 3)),
        measured: read === undefined ? null : hexRow(stripLab(read)),
        reversed: read?.reversed ?? false,
        readMs: read?.readMs ?? null,
      };
    }),
    faults: reading === undefined ? [] : faultsOf(assembleReading(reading, print, chart, condition, strips)),
    resultId,
  };
}

export interface PassInput {
  /** Made by the client, so that a retried request is the same pass. */
  readonly attempt: string;
  readonly strip: number;
  readonly mode: MeasurementMode;
  readonly hand?: HandMovement;
  /** Attempts of this strip that this pass is averaged with. */
  readonly averageWith?: readonly string[];
  /** Another pass of the same strip follows: nothing is judged yet. */
  readonly more?: boolean;
}

export type PassAnswer =
  | {
      readonly ok: true;
      readonly strip: number;
      readonly measured: readonly string[];
      readonly expected: readonly string[];
      readonly reversed: boolean;
      readonly complete: boolean;
      readonly readingId: number;
      readonly resultId: number | null;
      /** Mean ΔE00 of the averaged passes to their mean, where there are several. */
      readonly spread: number | null;
    }
  | { readonly ok: false; readonly reason: string; readonly words: string; readonly looksLike?: number };

const FAILURE_WORDS: Readonly<Record<string, string>> = {
  'too-fast': 'Too fast: move the instrument evenly, about four seconds for a strip.',
  'off-row': 'The instrument left the row. Lay the ruler along the strip and read it again.',
  'started-late': 'Started late: begin on the white paper before the first patch.',
  'tile-needed': 'The white tile is due. Press T to calibrate, then read the strip.',
};

/** Reads one strip. The answer is given after the strip is stored; a failed pass stores nothing. */
export async function readStrip(services: Services, code: string, input: PassInput): Promise<PassAnswer> {
  const data = await deskData(services, code);
  const { sheet, print, chart, instrument } = data;
  const strips = chart.layout.pages[sheet.page - 1];
  if (!Number.isInteger(input.strip) || input.strip < 1 || input.strip > strips.length)
    throw new Problem(
      'bad-input',
      `${code} has strips 1 to ${strips.length}.`,
      'Choose one of them.',
      'strip',
    );
  const driver = services.instruments.get(instrument.driver);
  if (driver === undefined)
    throw new Problem(
      'not-ready',
      `${instrument.name} is not connected.`,
      'Connect it, or drop a measurement file here.',
    );
  const nowMs = await domainNow(services);
  const patchesOf = (
    index: number,
  ): { device: Float64Array; page: number; strip: number; strips: number } => ({
    device: gatherRows(print.deviceValues, strips[index], 3),
    page: sheet.page,
    strip: index + 1,
    strips: strips.length,
  });
  const index = input.strip - 1;
  const other = (index + 1) % strips.length;
  const outcome = driver.readStrip({
    printState: sheet.printState,
    patches: patchesOf(index),
    otherPatches: patchesOf(other),
    mode: input.mode,
    attempt: input.attempt,
    timeMs: nowMs,
    tileMs: instrument.tileMs ?? undefined,
    hand: input.hand,
  });
  if (!outcome.ok) return { ok: false, reason: outcome.failure, words: FAILURE_WORDS[outcome.failure] };
  const asRead: StripRow = {
    page: sheet.page,
    strip: input.strip,
    attempt: input.attempt,
    reversed: false,
    kind: 'spectra',
    grid: outcome.grid,
    values: outcome.spectra,
    readMs: nowMs,
  };
  const expectedAll = await expectedLab(services, print.conditionId, print.deviceValues);
  const expected = strips.map((rows) => gatherRows(expectedAll, rows, 3));
  const match = matchStrip(stripLab(asRead), expected, index);
  if (match.strip !== index)
    return {
      ok: false,
      reason: 'other-strip',
      looksLike: match.strip + 1,
      words: `This looks like strip ${match.strip + 1}. Lay the instrument on strip ${input.strip} and read it again.`,
    };
  const strip = match.reversed
    ? { ...asRead, reversed: true, values: turned(asRead.values, outcome.grid.count) }
    : asRead;
  const stored = await services.database.transaction(async (sql) => {
    const first = await storeStrips(sql, data, input.mode, [strip], 'desk', nowMs);
    const others = input.averageWith ?? [];
    if (others.length === 0) return { ...first, shown: strip, spread: null };
    const passes = await listPasses(sql, first.readingId, strip.page, strip.strip, [
      ...others,
      input.attempt,
    ]);
    const { values, spread } = averageOf(passes);
    const mean = { ...strip, attempt: `mean of ${passes.length} ${input.attempt}`.slice(0, 60), values };
    const again = await storeStrips(sql, data, input.mode, [mean], 'desk', nowMs);
    return { ...again, shown: mean, spread };
  });
  const judged = stored.complete && chart.purpose === 'short-check' && input.more !== true;
  return {
    ok: true,
    strip: input.strip,
    measured: hexRow(stripLab(stored.shown)),
    expected: hexRow(expected[index]),
    reversed: match.reversed,
    complete: stored.complete,
    readingId: stored.readingId,
    // A retried pass stores nothing new and is judged once.
    resultId: !judged
      ? null
      : stored.added
        ? await judgeCompleteCheck(services, stored.readingId)
        : ((await checkOf(services, stored.readingId)) ??
          (await judgeCompleteCheck(services, stored.readingId))),
    spread: stored.spread,
  };
}

/** The check that was made of a reading. */
async function checkOf(services: Services, readingId: number): Promise<number | null> {
  const [row] = await services.database.rows<{ id: number }>(
    'SELECT r.id FROM result_source s JOIN result r ON r.id = s.result_id WHERE s.reading_id = ? AND r.link = ? ORDER BY r.id DESC LIMIT 1',
    [readingId, 'conformity'],
  );
  return row?.id ?? null;
}

/** Mean reflectance of several passes, and the mean ΔE00 of the passes to it. */
function averageOf(passes: readonly StripRow[]): { values: Float64Array; spread: number } {
  const values = new Float64Array(passes[0].values.length);
  for (const pass of passes) pass.values.forEach((value, i) => (values[i] += value / passes.length));
  const middle = stripLab({ ...passes[0], values });
  return { values, spread: mean(passes.flatMap((pass) => [...deltaE2000Rows(middle, stripLab(pass))])) };
}

/** Stores strips of a print in its open reading (or a new one) and keeps the sheets' progress. */
export async function storeStrips(
  sql: Sql,
  data: Pick<DeskData, 'print' | 'chart' | 'condition' | 'instrument'>,
  mode: string,
  strips: readonly StripRow[],
  source: 'desk' | 'file',
  nowMs: number,
): Promise<{ readonly readingId: number; readonly complete: boolean; readonly added: boolean }> {
  const { print, chart, condition, instrument } = data;
  await lockPrint(sql, print.id);
  const open = await latestReading(sql, print.id);
  const readingId =
    open !== undefined && open.mode === mode && open.source === source
      ? open.id
      : await insertReading(
          sql,
          {
            printId: print.id,
            instrumentId: source === 'desk' ? instrument.id : null,
            source,
            mode,
            startedMs: nowMs,
            early: source === 'desk' && nowMs < print.restUntilMs,
          },
          LOCAL_PERSON,
        );
  let added = false;
  for (const strip of strips) if (await insertStrip(sql, readingId, strip)) added = true;
  const stored = await listStrips(sql, readingId);
  let complete = true;
  for (const [pageIndex, page] of chart.layout.pages.entries()) {
    const read = stored.filter((strip) => strip.page === pageIndex + 1).length;
    const [row] = await sql.rows<{ id: number }>('SELECT id FROM sheet WHERE print_id = ? AND page = ?', [
      print.id,
      pageIndex + 1,
    ]);
    if (row !== undefined) await setSheetProgress(sql, row.id, read, read < page.length);
    if (read < page.length) complete = false;
  }
  if (complete) {
    const reading = await latestReading(sql, print.id);
    const faults =
      reading === undefined ? [] : faultsOf(assembleReading(reading, print, chart, condition, stored));
    await finishReading(sql, readingId, nowMs, JSON.stringify(faults));
  }
  return { readingId, complete, added };
}

function turned(values: Float64Array, bands: number): Float64Array {
  const out = new Float64Array(values.length);
  const count = values.length / bands;
  for (let i = 0; i < count; i++)
    out.set(values.subarray(i * bands, (i + 1) * bands), (count - 1 - i) * bands);
  return out;
}

/** Reads the white tile. */
export async function calibrateTile(services: Services): Promise<{ readonly tileMs: number }> {
  const [instrument] = await listInstruments(services.database);
  if (instrument === undefined)
    throw new Problem('not-ready', 'No instrument is connected.', 'Connect one first.');
  const tileMs = await domainNow(services);
  await setTile(services.database, instrument.id, tileMs);
  return { tileMs };
}

export async function markStrip(
  services: Services,
  code: string,
  strip: number,
  marked: boolean,
): Promise<readonly number[]> {
  const sheet = await findSheet(services.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const others = sheet.marked.filter((number) => number !== strip);
  const next = marked ? [...others, strip].sort((a, b) => a - b) : others;
  await setMarked(services.database, sheet.id, next);
  return next;
}
