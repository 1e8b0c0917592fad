import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import type { Fault } from '@melto/core/faults/fault';
import { listInstruments, setTile } from '@melto/store/devices';
import { findSheet, listRack, setMarked } from '@melto/store/prints';
import { latestReading, listStrips } from '@melto/store/readings';
import { clockOffset, domainNow } from '../kernel/clock.ts';
import type { Services } from '../kernel/context.ts';
import { expectedRamps } from '../ledger/curvesInForce.ts';
import { expectedLab } from './expected.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { assembleReading, faultsOf } from './readings.ts';
import { checkOf, deskData, hexRow, stripLab } from './deskData.ts';

export interface DeskInstrument {
  readonly name: string;
  readonly kind: ReaderKind;
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

export async function deskState(services: Services, code: string): Promise<DeskState> {
  const { sheet, print, chart, condition, instrument } = await deskData(services, code);
  const [offsetMs, waiting] = await Promise.all([clockOffset(services), listRack(services.database)]);
  const reading = await latestReading(services.database, print.id);
  const strips = reading === undefined ? [] : await listStrips(services.database, reading.id);
  const expected = await expectedLab(services, condition.id, condition.space, print.deviceValues);
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
      kind: driver?.kind ?? 'strip',
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
    faults:
      reading === undefined
        ? []
        : faultsOf({
            ...assembleReading(reading, print, chart, condition, strips),
            ramps: await expectedRamps(services.database, print),
          }),
    resultId,
  };
}

/** Reads the white tile of the instrument that a sheet is read with, or of the first one. */
export async function calibrateTile(services: Services, code?: string): Promise<{ readonly tileMs: number }> {
  const instrument =
    code === undefined
      ? (await listInstruments(services.database))[0]
      : (await deskData(services, code)).instrument;
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
