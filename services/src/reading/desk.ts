import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import type { Fault } from '@melto/core/faults/fault';
import { listInstruments, setTile } from '@melto/store/devices';
import { changeMark, listWaitingSheets } from '@melto/store/prints';
import { latestReading, listStrips } from '@melto/store/readings';
import { clockOffset, domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionName } from '../ledger/conditions.ts';
import { expectedRamps } from '../ledger/inForce.ts';
import { deskData, hexRow, requireInstrument, stripLab } from './deskData.ts';
import { expectedLab } from './expected.ts';
import { judgingOf } from './judgeRequest.ts';
import { assembleReading } from './loadReading.ts';
import { faultsOf } from './readingFaults.ts';

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
  /** Null where the sheet is measured from files only. */
  readonly instrument: DeskInstrument | null;
  readonly marked: readonly number[];
  readonly strips: readonly DeskStrip[];
  readonly faults: readonly Fault[];
  /** The complete reading is being judged; why it could not be. */
  readonly judging: boolean;
  readonly judgeProblem: string | null;
  /** The check that a complete wedge led to. */
  readonly resultId: number | null;
}

export async function deskState(context: Context, code: string): Promise<DeskState> {
  const { sheet, print, chart, condition, instrument } = await deskData(context, code);
  const [offsetMs, waiting, reading] = await Promise.all([
    clockOffset(context),
    listWaitingSheets(context.database, print.id),
    latestReading(context.database, print.id),
  ]);
  const strips = reading === undefined ? [] : await listStrips(context.database, reading.id);
  const expected = await expectedLab(context, condition.id, condition.process, print.deviceValues);
  const driver = instrument === undefined ? undefined : context.instruments.get(instrument.driver);
  const judging = reading === undefined ? undefined : await judgingOf(context, reading.id);
  return {
    code,
    title: chart.title,
    purpose: chart.purpose,
    conditionId: condition.id,
    conditionName: conditionName(condition),
    page: sheet.page,
    pages: chart.layout.pages.length,
    openSheets: waiting.filter((other) => other !== code),
    printedMs: print.printedMs,
    restUntilMs: print.restUntilMs,
    nowMs: context.now() + offsetMs,
    offsetMs,
    onRack: sheet.onRack,
    readingId: reading?.id ?? null,
    mode: reading?.mode ?? 'M1',
    instrument:
      instrument === undefined
        ? null
        : {
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
            ramps: await expectedRamps(context, print),
          }),
    judging: judging?.state === 'waits',
    judgeProblem: judging?.problem ?? null,
    resultId: judging?.resultId ?? null,
  };
}

/** Reads the white tile of the instrument that a sheet is read with, or of the first one. */
export async function calibrateTile(context: Context, code?: string): Promise<{ readonly tileMs: number }> {
  const instrument =
    code === undefined
      ? (await listInstruments(context.database))[0]
      : requireInstrument(await deskData(context, code));
  if (instrument === undefined)
    throw new Problem('not-ready', 'No instrument is connected.', 'Connect one first.');
  const tileMs = await domainNow(context);
  await setTile(context.database, instrument.id, tileMs);
  return { tileMs };
}

export async function markStrip(
  context: Context,
  code: string,
  strip: number,
  marked: boolean,
): Promise<readonly number[]> {
  const next = await unitOfWork(context, ({ database }) => changeMark(database, code, strip, marked));
  if (next === undefined) throw notFound(`sheet ${code}`);
  return next;
}
