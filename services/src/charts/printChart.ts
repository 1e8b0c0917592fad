import { genericLab } from '@melto/core/charts/expectedColours';
import type { FrontEndFault } from '@melto/core/device/printPath';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { labToHex } from '@melto/core/colour/srgb';
import { lockCondition } from '@melto/store/conditions';
import { insertPrint, insertSheet } from '@melto/store/prints';
import { nextPrintNumber } from '@melto/store/devices';
import { listHeads } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf, driverOf, isOwnDevice, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { keepDuty, printPoints } from '../ledger/deviceDuty.ts';
import {
  curvesAmong,
  curvesInForce,
  curvesOfResult,
  curvesWords,
  evennessInForce,
} from '../ledger/inForce.ts';
import { loadChart } from './chart.ts';

export interface PrintInput {
  /** Labels of the points of the settings record that the person ticked; a job is no chart and prints by its own. */
  readonly ticks: readonly string[] | 'as a job';
  /** Faults of a simulated device, on demand. */
  readonly conversion?: string;
  readonly side?: 'printing' | 'wrong';
  readonly frontEnd?: FrontEndFault;
  /** Ink devices: through the curves in force, or with a linear front end. */
  readonly curves?: 'in force' | 'none';
  /** It was printed before now, elsewhere: the device's own calibration is not asked for. */
  readonly before?: true;
  /** What the person was told that it goes through; refused where something else is in force by now. */
  readonly told?: ToldVersions;
}

/** Versions by their ids, null for none; what is left out was not told. */
export interface ToldVersions {
  readonly curves?: number | null;
  readonly profile?: number | null;
}

export interface Printed {
  readonly printId: number;
  readonly code: string;
  readonly sheets: readonly string[];
  readonly restUntilMs: number;
}

/** Prints a chart on its condition's device: sheets with new codes stand on the rack until they are read. */
export async function printChart(
  context: Context,
  chartId: number,
  input: PrintInput,
  through?: { readonly profileResultId: number | null; readonly values: Float64Array },
  judgedBy?: unknown,
): Promise<Printed> {
  const chart = await loadChart(context, chartId);
  const condition = await conditionOf(context, chart.conditionId);
  const points =
    input.before === true
      ? await settingsRecord(context, condition.id)
      : await printPoints(context, condition);
  const ticks = input.ticks === 'as a job' ? points.map(({ label }) => label) : input.ticks;
  const missing = points.filter((point) => point.tickAtPrint && !ticks.includes(point.label));
  if (missing.length > 0)
    throw new Problem(
      'bad-input',
      `Not ticked: ${missing.map(({ label }) => label).join(', ')}.`,
      'Check the driver and tick each point.',
      'ticks',
    );
  const driver = driverOf(context, condition);
  if (input.conversion !== undefined && !driver.conversions.includes(input.conversion))
    throw new Problem(
      'bad-input',
      `${condition.device} has no conversion "${input.conversion}".`,
      `Choose ${driver.conversions.join(' or ')}.`,
      'conversion',
    );
  if (isOwnDevice(condition) && (input.side !== undefined || input.frontEnd !== undefined))
    throw new Problem(
      'bad-input',
      `${condition.device} is no simulated device.`,
      'Print without a mistake.',
      input.side !== undefined ? 'side' : 'frontEnd',
    );
  const values = through?.values ?? chart.set.device;
  if (values === undefined)
    throw new Problem('conflict', 'This chart has no device values.', 'Print it through a profile.');
  await requireTold(context, condition.id, input.told);
  const front = await frontEndOf(context, condition, input);
  const printedMs = await domainNow(context);
  const restUntilMs = printedMs + condition.restMinutes * 60_000;
  const seed = context.seed();
  return unitOfWork(context, async (inner) => {
    const sql = inner.database;
    // What happens at the device is asked on the connection of this change: eight prints at once would else wait for
    // a ninth connection, each for another's.
    const changes = (await inner.circumstances(inner, condition.id)).filter(
      ({ kind }) => kind !== 'instrument',
    );
    // One that is deleted in the same moment prints nothing.
    if (!(await lockCondition(sql, condition.id))) throw notFound(`condition ${condition.id}`);
    const number = await nextPrintNumber(sql, condition.deviceId);
    const code = `${condition.deviceCode}-${String(number).padStart(4, '0')}`;
    const printId = await insertPrint(sql, {
      conditionId: condition.id,
      chartId,
      code,
      profileResultId: through?.profileResultId ?? null,
      curvesResultId: front.curvesResultId,
      evennessResultId: front.evennessResultId,
      judgedBy: judgedBy === undefined ? null : JSON.stringify(judgedBy),
      deviceValues: values,
      ticks: input.ticks === 'as a job' ? [] : input.ticks,
      printedMs,
      restUntilMs,
    });
    if (input.ticks !== 'as a job') await keepDuty(inner, condition, input.ticks, printedMs);
    const sheets: string[] = [];
    for (const [index, strips] of chart.layout.pages.entries()) {
      const printState = isOwnDevice(condition)
        ? ELSEWHERE
        : context.printPath.print({
            device: condition.deviceDriver,
            stock: condition.stockDriver,
            mode: condition.mode,
            process: condition.process,
            timeMs: printedMs,
            sheetIndex: number * 10 + index,
            seed,
            side: input.side,
            conversion: input.conversion,
            curves: front.curves,
            frontEnd: input.frontEnd,
            zones: front.zones,
            changes,
          });
      const sheet = `${code}-${index + 1}`;
      await insertSheet(sql, {
        printId,
        page: index + 1,
        code: sheet,
        strips: strips.length,
        printState,
        thumbnail: thumbnailOf(condition.process, values, strips),
      });
      sheets.push(sheet);
    }
    return { printId, code, sheets, restUntilMs };
  });
}

/** Refuses where a page that was opened earlier told of other versions than those in force. */
async function requireTold(context: Context, conditionId: number, told: ToldVersions = {}): Promise<void> {
  const heads = await listHeads(context.database, conditionId);
  const now = { curves: curvesAmong(heads), profile: heads.find(({ link }) => link === 'profile') };
  for (const link of ['curves', 'profile'] as const) {
    const head = now[link];
    if (told[link] === undefined || told[link] === (head?.id ?? null)) continue;
    const words = head === undefined ? `no ${link} any more` : curvesWords(head, conditionId);
    throw new Problem(
      'conflict',
      `Since this page was opened another version came into force: ${words}.`,
      'Look at it, then print. Nothing was printed.',
      'told',
    );
  }
}

/** What is known of a sheet that was printed outside of Melto. */
const ELSEWHERE = '{}';

interface FrontEnd {
  readonly curvesResultId: number | null;
  readonly curves?: ToneCurves;
  readonly evennessResultId: number | null;
  readonly zones?: readonly (readonly number[])[];
}

/** What the front end of an ink device is told: curves as asked for, the zones always. */
async function frontEndOf(context: Context, condition: ConditionRow, input: PrintInput): Promise<FrontEnd> {
  if (!drivenByInks(condition.process)) {
    if (input.curves === 'in force' || input.frontEnd !== undefined)
      throw new Problem(
        'bad-input',
        `${condition.device} has no front end for curves.`,
        'Print without curves.',
        'curves',
      );
    return { curvesResultId: null, evennessResultId: null };
  }
  const even = await evennessInForce(context, condition.id);
  const zones = { evennessResultId: even?.id ?? null, zones: even?.zones };
  if (input.curves !== 'in force') return { curvesResultId: null, ...zones };
  const head = await curvesInForce(context, condition.id);
  if (head === undefined)
    throw new Problem(
      'conflict',
      'There are no curves in force.',
      'Print ramps without curves and make curves from them first.',
      'curves',
    );
  return { curvesResultId: head.id, curves: await curvesOfResult(context, head.id), ...zones };
}

/** Generic screen colours of 36 patches spread over a page. */
function thumbnailOf(
  process: Process,
  values: Float64Array,
  strips: readonly (readonly number[])[],
): string[] {
  const rows = strips.flat();
  return Array.from({ length: Math.min(36, rows.length) }, (_, i) => {
    const row = rows[Math.floor((i * rows.length) / Math.min(36, rows.length))];
    return labToHex(genericLab(process, values, row * channelCount(process)));
  });
}
