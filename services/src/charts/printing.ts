import { genericLab } from '@melto/core/charts/expectedColours';
import type { FrontEndFault } from '@melto/core/device/printPath';
import { channelCount } from '@melto/core/device/deviceSpace';
import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { labToHex } from '@melto/core/colour/srgb';
import {
  insertPrint,
  insertSheet,
  findPrint,
  findSheet,
  listRack,
  listSheets,
  setOnRack,
} from '@melto/store/prints';
import type { SheetRow } from '@melto/store/prints';
import { nextPrintNumber } from '@melto/store/devices';
import { chartPages, loadChart, renderPages } from './charts.ts';
import type { Download } from './charts.ts';
import { clockOffset, domainNow } from '../kernel/clock.ts';
import { simulatedChanges } from '../simulated/simulatedChanges.ts';
import { conditionOf, driverOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { curvesInForce, curvesOfResult, evennessInForce } from '../ledger/curvesInForce.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export interface PrintInput {
  /** Labels of the points of the settings record that the person ticked. */
  readonly ticks: readonly string[];
  /** Faults of a simulated device, on demand. */
  readonly conversion?: string;
  readonly side?: 'printing' | 'wrong';
  readonly frontEnd?: FrontEndFault;
  /** Ink devices: through the curves in force, or with a linear front end. */
  readonly curves?: 'in force' | 'none';
}

export interface Printed {
  readonly printId: number;
  readonly code: string;
  readonly sheets: readonly string[];
  readonly restUntilMs: number;
}

/** Prints a chart on its condition's device: sheets with new codes stand on the rack until they are read. */
export async function printChart(
  services: Services,
  chartId: number,
  input: PrintInput,
  through?: { readonly profileResultId: number | null; readonly values: Float64Array },
  judgedBy?: unknown,
): Promise<Printed> {
  const chart = await loadChart(services, chartId);
  const condition = await conditionOf(services, chart.conditionId);
  const points = await settingsRecord(services, condition.id);
  const missing = points.filter((point) => point.tickAtPrint && !input.ticks.includes(point.label));
  if (missing.length > 0)
    throw new Problem(
      'bad-input',
      `Not ticked: ${missing.map(({ label }) => label).join(', ')}.`,
      'Check the driver and tick each point.',
      'ticks',
    );
  const driver = driverOf(services, condition);
  if (input.conversion !== undefined && !driver.conversions.includes(input.conversion))
    throw new Problem(
      'bad-input',
      `${condition.device} has no conversion "${input.conversion}".`,
      `Choose ${driver.conversions.join(' or ')}.`,
      'conversion',
    );
  const values = through?.values ?? chart.set.device;
  if (values === undefined)
    throw new Problem('conflict', 'This chart has no device values.', 'Print it through a profile.');
  const front = await frontEndOf(services, condition, input);
  const printedMs = await domainNow(services);
  const restUntilMs = printedMs + condition.restMinutes * 60_000;
  const seed = services.seed();
  return services.database.transaction(async (sql) => {
    const number = await nextPrintNumber(sql, condition.deviceId);
    const code = `${condition.deviceCode}-${String(number).padStart(4, '0')}`;
    const printId = await insertPrint(
      sql,
      {
        conditionId: condition.id,
        chartId,
        code,
        profileResultId: through?.profileResultId ?? null,
        curvesResultId: front.curvesResultId,
        evennessResultId: front.evennessResultId,
        judgedBy: judgedBy === undefined ? null : JSON.stringify(judgedBy),
        deviceValues: values,
        ticks: input.ticks,
        printedMs,
        restUntilMs,
      },
      LOCAL_PERSON,
    );
    const sheets: string[] = [];
    for (const [index, strips] of chart.layout.pages.entries()) {
      const printState = services.printPath.print({
        device: condition.deviceDriver,
        stock: condition.stockDriver,
        mode: condition.mode,
        space: condition.space,
        timeMs: printedMs,
        sheetIndex: number * 10 + index,
        seed,
        side: input.side,
        conversion: input.conversion,
        curves: front.curves,
        frontEnd: input.frontEnd,
        zones: front.zones,
        changes: (await simulatedChanges(services, condition.id)).filter(({ kind }) => kind !== 'instrument'),
      });
      const sheet = `${code}-${index + 1}`;
      await insertSheet(sql, {
        printId,
        page: index + 1,
        code: sheet,
        strips: strips.length,
        printState,
        thumbnail: thumbnailOf(condition.space, values, strips),
      });
      sheets.push(sheet);
    }
    return { printId, code, sheets, restUntilMs };
  });
}

interface FrontEnd {
  readonly curvesResultId: number | null;
  readonly curves?: ToneCurves;
  readonly evennessResultId: number | null;
  readonly zones?: readonly (readonly number[])[];
}

/** What the front end of an ink device is told: curves as asked for, the zones always. */
async function frontEndOf(services: Services, condition: ConditionRow, input: PrintInput): Promise<FrontEnd> {
  if (condition.space === 'rgb') {
    if (input.curves === 'in force' || input.frontEnd !== undefined)
      throw new Problem(
        'bad-input',
        `${condition.device} has no front end for curves.`,
        'Print without curves.',
        'curves',
      );
    return { curvesResultId: null, evennessResultId: null };
  }
  const { database } = services;
  const even = await evennessInForce(database, condition.id);
  const zones = { evennessResultId: even?.id ?? null, zones: even?.zones };
  if (input.curves !== 'in force') return { curvesResultId: null, ...zones };
  const head = await curvesInForce(database, condition.id);
  if (head === undefined)
    throw new Problem(
      'conflict',
      'There are no curves in force.',
      'Print ramps without curves and make curves from them first.',
      'curves',
    );
  return { curvesResultId: head.id, curves: await curvesOfResult(database, head.id), ...zones };
}

/** Generic screen colours of 36 patches spread over a page. */
function thumbnailOf(
  space: DeviceSpace,
  values: Float64Array,
  strips: readonly (readonly number[])[],
): string[] {
  const rows = strips.flat();
  return Array.from({ length: Math.min(36, rows.length) }, (_, i) => {
    const row = rows[Math.floor((i * rows.length) / Math.min(36, rows.length))];
    return labToHex(genericLab(space, values, row * channelCount(space)));
  });
}

/** A slip of the rack. */
export interface RackSlip {
  readonly code: string;
  readonly conditionId: number;
  readonly title: string;
  readonly page: number;
  readonly strips: number;
  readonly stripsRead: number;
  readonly printedMs: number;
  readonly restUntilMs: number;
  readonly thumbnail: readonly string[];
  readonly state: 'resting' | 'ready' | 'partly read';
}

export interface RackState {
  /** Domain time of the answer, and how far it runs ahead of real time. */
  readonly nowMs: number;
  readonly offsetMs: number;
  readonly slips: readonly RackSlip[];
}

export async function rack(services: Services): Promise<RackState> {
  const offsetMs = await clockOffset(services);
  const nowMs = services.now() + offsetMs;
  return { nowMs, offsetMs, slips: (await listRack(services.database)).map((sheet) => slipOf(sheet, nowMs)) };
}

export function slipOf(sheet: SheetRow, nowMs: number): RackSlip {
  const { code, conditionId, title, page, strips, stripsRead, printedMs, restUntilMs, thumbnail } = sheet;
  const state = stripsRead > 0 ? 'partly read' : nowMs < restUntilMs ? 'resting' : 'ready';
  return { code, conditionId, title, page, strips, stripsRead, printedMs, restUntilMs, thumbnail, state };
}

export async function sheetsOf(
  services: Services,
  condition: number,
): Promise<(RackSlip & { readonly onRack: boolean; readonly printId: number })[]> {
  const nowMs = await domainNow(services);
  return (await listSheets(services.database, condition)).map((sheet) => ({
    ...slipOf(sheet, nowMs),
    onRack: sheet.onRack,
    printId: sheet.printId,
  }));
}

/** Throws a sheet away (or takes it back); what was read of it stays. */
export async function discardSheet(services: Services, code: string, onRack: boolean): Promise<void> {
  if (!(await setOnRack(services.database, code, onRack))) throw notFound(`sheet ${code}`);
}

/** The pages of a print as a file: as they were sent, or with the CMYK values that a wedge asks for. */
export async function printFile(
  services: Services,
  sheetCode: string,
  format: 'pdf' | 'tiff' | 'png',
  asked = false,
): Promise<Download> {
  const sheet = await findSheet(services.database, sheetCode);
  if (sheet === undefined) throw notFound(`sheet ${sheetCode}`);
  const print = await findPrint(services.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${sheetCode}`);
  const chart = await loadChart(services, print.chartId);
  const condition = await conditionOf(services, print.conditionId);
  const { device, space } = chart.set;
  if (asked && (chart.purpose !== 'wedge' || device === undefined))
    throw new Problem(
      'bad-input',
      `${sheetCode} is no control wedge.`,
      'Take the sheet as it was sent.',
      'asked',
    );
  const pages =
    asked && device !== undefined
      ? chartPages(chart, condition, print.code, device, print.printedMs, {
          space,
          words: 'place at 100 %, treat as the page beside it',
        })
      : chartPages(chart, condition, print.code, print.deviceValues, print.printedMs);
  return renderPages(pages, format, sheet.page, print.code, print.printedMs);
}

/** The pages of a chart that was not printed by Melto. */
export async function chartFile(
  services: Services,
  chartId: number,
  format: 'pdf' | 'tiff' | 'png',
  page: number,
): Promise<Download> {
  const chart = await loadChart(services, chartId);
  const condition = await conditionOf(services, chart.conditionId);
  if (chart.set.device === undefined)
    throw new Problem('conflict', 'This chart has no device values.', 'Print it through a profile.');
  const code = `${condition.deviceCode}-C${chartId}`;
  return renderPages(
    chartPages(chart, condition, code, chart.set.device, chart.madeMs, { space: chart.set.space }),
    format,
    page,
    code,
    chart.madeMs,
  );
}
