import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import type { Fault } from '@melto/core/faults/fault';
import { changeMark, listWaitingSheets } from '@melto/store/prints';
import { latestReading } from '@melto/store/readings';
import { listStrips, missingPatches } from '@melto/store/strips';
import type { StripRow } from '@melto/store/strips';
import { clockOffset } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { conditionName } from '../ledger/conditions.ts';
import { expectedRamps } from '../ledger/inForce.ts';
import { deskData, hexRow, stripLab } from './deskData.ts';
import { expectedLab } from './expected.ts';
import { judgingOf } from './judgeRequest.ts';
import { assembleReading } from './loadReading.ts';
import { isSimulatedSheet } from './underInstrument.ts';
import { instrumentOf } from './instruments.ts';
import { faultsOf } from './readingFaults.ts';

export interface DeskStrip {
  readonly strip: number;
  /** Screen colours of what the patches should give. */
  readonly expected: readonly string[];
  /** Of a strip that was read whole. */
  readonly measured: readonly string[] | null;
  /** Of a strip that lacks patches: null for each of them. */
  readonly partly: readonly (string | null)[] | null;
  readonly reversed: boolean;
  readonly readMs: number | null;
}

export interface DeskState {
  readonly code: string;
  readonly title: string;
  readonly purpose: string;
  /** What a job's picture has values of; null for other sheets. */
  readonly job: string | null;
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
  /** Serial number and name of the instrument that its newest reading is by. */
  readonly readBy: { readonly serial: string; readonly name: string } | null;
  /** What the chart was laid out for. */
  readonly reader: ReaderKind;
  /** A simulated device printed it: simulated instruments read it. */
  readonly simulated: boolean;
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
  const { sheet, print, chart, condition } = await deskData(context, code);
  const [offsetMs, waiting, reading] = await Promise.all([
    clockOffset(context),
    listWaitingSheets(context.database, print.id),
    latestReading(context.database, print.id),
  ]);
  const strips = reading === undefined ? [] : await listStrips(context.database, reading.id);
  const expected = await expectedLab(context, condition.id, condition.process, print.deviceValues);
  const judging = reading === undefined ? undefined : await judgingOf(context, reading.id);
  return {
    code,
    title: chart.title,
    purpose: chart.purpose,
    job: chart.purpose === 'job' ? chart.processName : null,
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
    readBy: await readBy(context, reading?.instrumentId ?? null),
    reader: chart.reader,
    simulated: isSimulatedSheet(context, { condition }),
    marked: sheet.marked,
    strips: chart.layout.pages[sheet.page - 1].map((rows, index) => {
      const read = strips.find((strip) => strip.page === sheet.page && strip.strip === index + 1);
      return {
        strip: index + 1,
        expected: hexRow(gatherRows(expected, rows, 3)),
        ...measuredRow(read),
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

/** Screen colours of a strip as far as it was read. */
function measuredRow(read: StripRow | undefined): Pick<DeskStrip, 'measured' | 'partly'> {
  if (read === undefined) return { measured: null, partly: null };
  const lab = stripLab(read);
  const colours = hexRow(lab);
  if (missingPatches(read) === 0) return { measured: colours, partly: null };
  return { measured: null, partly: colours.map((hex, i) => (Number.isNaN(lab[3 * i]) ? null : hex)) };
}

async function readBy(context: Context, instrument: number | null): Promise<DeskState['readBy']> {
  if (instrument === null) return null;
  const { serial, name } = await instrumentOf(context, instrument);
  return { serial, name };
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
