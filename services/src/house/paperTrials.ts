import type { ChartForm } from '@melto/core/charts/chartForm';
import { drivenByInks } from '@melto/core/device/process';
import { TRIAL_PATCHES, TRIAL_STOCKS } from '@melto/core/stock/trialRanges';
import { listSameConditions } from '@melto/store/conditions';
import { listDevices } from '@melto/store/devices';
import { lockHouse } from '@melto/store/houses';
import { insertJob } from '@melto/store/jobs';
import {
  findPaperTrial,
  insertPaperTrial,
  listPaperTrials,
  listTrialPrints,
  setPaperTrialRemoved,
} from '@melto/store/paperTrials';
import type { PaperTrialRow, TrialPrintRow } from '@melto/store/paperTrials';
import { storeChart } from '../charts/chart.ts';
import type { ChartToStore } from '../charts/chart.ts';
import { printChart } from '../charts/printChart.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import type { Progress } from '../kernel/jobs.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { SettingsPoint } from '../ledger/conditions.ts';
import { duePoints, printPoints } from '../ledger/deviceDuty.ts';
import { profilingChart } from '../profile/profilingChart.ts';
import { conditionChoices, createCondition } from './newCondition.ts';
import type { ConditionChoices } from './newCondition.ts';

export type { PaperTrialRow };

export const PAPER_TRIAL = 'paper-trial';
const MOST_TRIALS = 100;
const MOST_TITLE = 120;

export interface NewPaperTrial extends ChartForm {
  readonly name: string;
  readonly deviceId: number;
  readonly inkSet: string;
  readonly mode: string;
  readonly stockIds: readonly number[];
  readonly patches: number;
  /** Points of the settings that were ticked: they hold for all stocks. */
  readonly ticks: readonly string[];
}

type DeviceChoices = ConditionChoices['devices'][number];

export interface PaperTrial extends PaperTrialRow {
  readonly prints: readonly TrialPrintRow[];
}

/** The trials of the house, the newest first. */
export function paperTrials({ database }: Context): Promise<PaperTrialRow[]> {
  return listPaperTrials(database, MOST_TRIALS);
}

export async function paperTrial({ database }: Context, id: number): Promise<PaperTrial> {
  const row = await findPaperTrial(database, id);
  if (row === undefined) throw notFound(`paper trial ${id}`);
  return { ...row, prints: await listTrialPrints(database, id) };
}

/** What is ticked before a trial is printed: of all its stocks, each point once. */
export async function trialPoints(
  context: Context,
  asked: Pick<NewPaperTrial, 'deviceId' | 'inkSet' | 'mode' | 'stockIds'>,
): Promise<SettingsPoint[]> {
  return pointsOf(context, await choicesOf(context, asked.deviceId), asked);
}

/** What a device can be asked for; refused where it is none. */
async function choicesOf(context: Context, deviceId: number): Promise<DeviceChoices> {
  const device = (await conditionChoices(context)).devices.find(({ id }) => id === deviceId);
  if (device === undefined)
    throw new Problem('bad-input', 'This device is not known.', 'Choose one of the list.', 'deviceId');
  return device;
}

async function pointsOf(
  context: Context,
  choices: DeviceChoices,
  { deviceId, inkSet, mode, stockIds }: Parameters<typeof trialPoints>[1],
): Promise<SettingsPoint[]> {
  const device = (await listDevices(context.database)).find(({ id }) => id === deviceId);
  const points = new Map<string, SettingsPoint>();
  const keep = (more: readonly SettingsPoint[]): void =>
    more.forEach((point) => {
      const known = points.get(point.label);
      points.set(point.label, {
        ...(known ?? point),
        tickAtPrint: point.tickAtPrint || known?.tickAtPrint === true,
      });
    });
  if (device !== undefined) keep(await duePoints(context, device));
  for (const stockId of new Set(stockIds)) {
    const [same] = await listSameConditions(context.database, { deviceId, stockId, inkSet, mode });
    keep(
      same === undefined ? choices.points : await printPoints(context, await conditionOf(context, same.id)),
    );
  }
  return [...points.values()];
}

/** What is left to do once each stock has its condition. */
interface TrialWork extends NewPaperTrial {
  readonly conditions: readonly number[];
}

/**
 * Prints one chart on many stocks: each gets its condition, where it has none yet, and a sheet with its own code. All are
 * printed as device values, past any curves, so that stocks are compared and not what was made of them. Charts of inks
 * are worked out by a job.
 */
export async function beginPaperTrial(
  context: Context,
  input: NewPaperTrial,
): Promise<{ readonly id?: number; readonly jobId?: number }> {
  const { deviceId, mode, inkSet } = input;
  const name = named(input.name, 'name', 'trial');
  checkAsked(input);
  const device = await choicesOf(context, deviceId);
  const unticked = (await pointsOf(context, device, input)).filter(
    ({ label, tickAtPrint }) => tickAtPrint && !input.ticks.includes(label),
  );
  if (unticked.length > 0)
    throw new Problem(
      'bad-input',
      `Not ticked: ${unticked.map(({ label }) => label).join(', ')}.`,
      'Check the driver and tick each point.',
      'ticks',
    );
  return unitOfWork(context, async (inner) => {
    // Two trials at once follow each other: the second finds the conditions of the first.
    await lockHouse(inner.database);
    const conditions: number[] = [];
    for (const stockId of new Set(input.stockIds)) {
      const [same] = await listSameConditions(inner.database, { deviceId, stockId, inkSet, mode });
      const { points } = device;
      conditions.push(
        same?.id ?? (await createCondition(inner, { deviceId, stockId, inkSet, mode, points })).id,
      );
    }
    const [conditionId] = conditions;
    const work: TrialWork = { ...input, name, conditions };
    const { process } = await conditionOf(inner, conditionId);
    if (drivenByInks(process)) {
      const job = { kind: PAPER_TRIAL, lane: 'long', conditionId, input: work } as const;
      return { jobId: await insertJob(inner.database, job, inner.now()) };
    }
    return { id: await printTrial(inner, work, await profilingChart(inner, conditionId, work)) };
  });
}

/** The work of the job. */
export async function workPaperTrial(
  context: Context,
  work: TrialWork,
  onProgress: Progress,
): Promise<(inner: Context) => Promise<undefined>> {
  const words = 'Choosing the patches that tell most';
  const chart = await profilingChart(context, work.conditions[0], work, (fraction) =>
    onProgress(0.9 * fraction, words),
  );
  return async (inner) => {
    await printTrial(inner, work, chart);
    return undefined;
  };
}

async function printTrial(
  context: Context,
  { name, deviceId, mode, patches, ticks, conditions }: TrialWork,
  chart: ChartToStore,
): Promise<number> {
  const prints: number[] = [];
  for (const conditionId of conditions) {
    const title = `${chart.title}, ${name}`.slice(0, MOST_TITLE);
    const chartId = await storeChart(context, { ...chart, conditionId, title });
    const { printId } = await printChart(context, chartId, {
      ticks,
      ...(drivenByInks(chart.process) ? { curves: 'none' as const } : {}),
    });
    prints.push(printId);
  }
  const madeMs = await domainNow(context);
  return insertPaperTrial(context.database, { name, deviceId, mode, patches, prints, madeMs });
}

function checkAsked({ stockIds, patches }: NewPaperTrial): void {
  const stocks = new Set(stockIds).size;
  if (stocks < TRIAL_STOCKS.least || stocks > TRIAL_STOCKS.most)
    throw new Problem(
      'bad-input',
      `A trial is of ${TRIAL_STOCKS.least} to ${TRIAL_STOCKS.most} stocks.`,
      'Choose those that are to be compared.',
      'stockIds',
    );
  if (!Number.isInteger(patches) || patches < TRIAL_PATCHES.least || patches > TRIAL_PATCHES.most)
    throw new Problem(
      'bad-input',
      `A trial’s chart has ${TRIAL_PATCHES.least} to ${TRIAL_PATCHES.most} patches.`,
      'Give a whole number between them.',
      'patches',
    );
}

/** Takes a trial off the list, or puts it back; its conditions, prints and readings stay. */
export async function removePaperTrial(context: Context, id: number, removed: boolean): Promise<void> {
  await unitOfWork(context, async ({ database }) => {
    if (!(await setPaperTrialRemoved(database, id, removed ? context.now() : null)))
      throw notFound(`paper trial ${id}`);
  });
}
