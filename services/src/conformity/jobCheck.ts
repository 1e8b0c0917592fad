import { chainCause } from '@melto/core/chain/chainCause';
import type { ChainFinding } from '@melto/core/chain/chainCause';
import { chainChart, inkChainChart, whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import type { ChainCause, OtherPaper } from '@melto/core/chain/chainHypotheses';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { processOf } from '@melto/core/chain/jobSource';
import type { InkSource, JobSource } from '@melto/core/chain/jobSource';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { eightBit } from '@melto/core/charts/namedPatches';
import { needsOf } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { listLikeConditions } from '@melto/store/conditions';
import { listCompleteReadings } from '@melto/store/readings';
import { storeChart } from '../charts/chart.ts';
import { printChart } from '../charts/printChart.ts';
import type { Printed } from '../charts/printChart.ts';
import { inkSource, jobTold, sourceProfiles } from '../charts/sourceProfiles.ts';
import type { JobTold } from '../charts/sourceProfiles.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf, isOwnDevice } from '../ledger/conditions.ts';
import { curvesInForce, profileInForce, profileOfResult } from '../ledger/inForce.ts';
import { loadReading } from '../reading/loadReading.ts';

/** What a simulated job may come to on its way; on paper of another kind a sheet is printed on its own condition. */
export type JobMishap = Exclude<ChainCause, 'paper'>;

export interface JobCheckInput extends ChartForm {
  /** The intent that jobs are converted with. */
  readonly intent: ChainIntent;
  /** The profile that jobs of inks carry; jobs are sRGB where none is named. */
  readonly sourceId?: number;
  /** What happens to the job of a simulated device; all goes well where it is not said. */
  readonly happens?: JobMishap;
}

/**
 * Prints a picture of sRGB or of CMYK that carries its profile, as a job that is placed in a document and converted by
 * the house's own programs. A simulated device converts it by the profile in force.
 */
export async function printJobCheck(
  context: Context,
  conditionId: number,
  { intent, sourceId, happens = 'right', ...form }: JobCheckInput,
): Promise<Printed> {
  const condition = await conditionOf(context, conditionId);
  if (isOwnDevice(condition) && happens !== 'right')
    throw new Problem(
      'bad-input',
      `${condition.device} is no simulated device.`,
      'Print without a mishap.',
      'happens',
    );
  const profile = await profileInForce(context, conditionId);
  if (profile === undefined)
    throw new Problem('conflict', 'There is no profile in force.', 'Build one first.');
  const source = await sourceOf(context, sourceId);
  const process = processOf(source);
  const { names, device } = source === 'sRGB' ? chainChart() : inkChainChart();
  const way = chainHypotheses({ values: device, source, profile: profile.profile, intent }).find(
    ({ cause }) => cause === happens,
  );
  if (way === undefined) throw new Error(`no way of a job to ${happens}`);
  const seed = context.seed();
  const chartId = await storeChart(context, {
    ...{ conditionId, purpose: 'job', title: 'Job check', process },
    ...{ form, seed, device, names },
    layout: layoutChart(process, device, form.paper, seed, needsOf(form)),
  });
  const curves =
    drivenByInks(condition.process) && (await curvesInForce(context, conditionId)) !== undefined
      ? 'in force'
      : undefined;
  const told: JobTold = { intent, sourceId };
  return printChart(
    context,
    chartId,
    { curves, ticks: 'as a job' },
    { profileResultId: profile.resultId, values: way.device.map(eightBit) },
    told,
  );
}

/** What a reading of a job's picture says of the way that the job went. */
export interface JobCheckView {
  readonly readingId: number;
  readonly code: string;
  readonly finishedMs: number;
  readonly intent: string;
  /** What its values are meant as: sRGB, or the name of a profile. */
  readonly source: string;
  readonly finding: ChainFinding;
}

/** Other papers of a device that are tried, so that a page does not wait for a house of them. */
const MOST_PAPERS = 6;
const MOST_SOURCES = 4;

/** The newest reading of a job's picture, judged; undefined where there is none. */
export async function newestJobCheck(
  context: Context,
  conditionId: number,
): Promise<JobCheckView | undefined> {
  const [newest] = await listCompleteReadings(context.database, conditionId, {
    purposes: ['job'],
    limit: 1,
  });
  if (newest === undefined) return undefined;
  const { reading, print, chart, rows, lab } = await loadReading(context, newest.id);
  const { device, process } = chart.set;
  if (
    device === undefined ||
    process === undefined ||
    print.profileResultId === null ||
    print.judgedBy === null
  )
    throw new Error(`print ${print.code} is no job's picture`);
  const { intent, sourceId } = jobTold(print.judgedBy);
  const values = gatherRows(device, rows, channelCount(process));
  const [profile, papers, source, otherInks] = await Promise.all([
    profileOfResult(context, print.profileResultId),
    otherPapers(context, conditionId),
    sourceOf(context, sourceId),
    otherSources(context, sourceId),
  ]);
  return {
    readingId: reading.id,
    code: print.code,
    finishedMs: reading.finishedMs ?? reading.startedMs,
    intent: CHAIN_INTENTS[intent].words,
    source: source === 'sRGB' ? source : source.name,
    finding: chainCause(
      lab,
      chainHypotheses({ values, source, profile, intent, papers, otherInks }),
      whiteRows(values, process),
    ),
  };
}

function sourceOf(context: Context, id: number | undefined): Promise<JobSource> {
  return id === undefined ? Promise.resolve('sRGB') : inkSource(context, id);
}

/** Other profiles that jobs of the house carry: what a program may take inks for. */
async function otherSources(context: Context, id: number | undefined): Promise<InkSource[]> {
  if (id === undefined) return [];
  const others = (await sourceProfiles(context)).filter((other) => other.id !== id);
  return Promise.all(others.slice(0, MOST_SOURCES).map((other) => inkSource(context, other.id)));
}

/** Profiles in force of the same device, inks and mode on other stocks. */
async function otherPapers(context: Context, conditionId: number): Promise<OtherPaper[]> {
  const own = await conditionOf(context, conditionId);
  const others = (await listLikeConditions(context.database, own)).filter(({ id }) => id !== conditionId);
  const found = await Promise.all(
    others.slice(0, MOST_PAPERS).map(async (condition) => {
      const profile = await profileInForce(context, condition.id);
      return profile === undefined ? [] : [{ name: conditionName(condition), profile: profile.profile }];
    }),
  );
  return found.flat();
}
