import { profiledProcess } from '@melto/core/characterise/leastPatches';
import { channelCount, drivenByLight, RGB, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { needsOf } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { RGB_CHART_PATCHES } from '@melto/core/charts/rgbChart';
import { uncertaintyOf } from '@melto/core/characterise/modelUncertainty';
import type { ModelUncertainty } from '@melto/core/characterise/modelUncertainty';
import { labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { refinementPatches, RESERVED_NAMES, tiePatches } from '@melto/core/refine/refinementPatches';
import type { WantedPatch } from '@melto/core/refine/refinementPatches';
import { unwrap } from '@melto/core/result';
import { placeInksByModel } from '@melto/core/separate/placedInks';
import type { ExtraInks } from '@melto/core/separate/extraInks';
import { insertJob } from '@melto/store/jobs';
import { totalInkAtInput } from '../calibration/totalInk.ts';
import { storeChart } from '../charts/chart.ts';
import type { ChartToStore } from '../charts/chart.ts';
import type { Context } from '../kernel/context.ts';
import type { Progress } from '../kernel/jobs.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { completeReading } from '../reading/loadReading.ts';
import { pooledReadings } from './pooledReadings.ts';
import { createChart, profilingChart } from './profilingChart.ts';
import type { NewChart } from './profilingChart.ts';

export const MAKE_CHART = 'make-chart';
export const REFINEMENT_MOST = { unsure: 800, colours: 500, readings: 6, patches: 3000 } as const;

/** What a chart is to add to readings that there are. */
export interface RefinementRequest extends ChartForm {
  readonly readingIds: readonly number[];
  /** Patches where the model is least sure. */
  readonly unsure: number;
  /** Colours that matter, absolute D50; each is read `readings` times. */
  readonly colours: readonly NamedColour[];
  /** Main colours of a picture, Lab of its own white. */
  readonly picture: readonly { readonly lab: readonly number[] }[];
  readonly readings: number;
}

/** Charts of light of so many patches are there at once; larger ones take up to a second, in which nobody else is served. */
const AT_ONCE = 600;

/** Charts of inks are worked out patch by patch: a job, as are large ones of light. Others are there at once. */
export async function requestChart(
  context: Context,
  conditionId: number,
  input: NewChart,
): Promise<{ readonly id?: number; readonly jobId?: number }> {
  const condition = await conditionOf(context, conditionId);
  const large = input.patches > AT_ONCE && input.patches <= RGB_CHART_PATCHES.most;
  if (sameProcess(condition.process, RGB) && !large) return createChart(context, conditionId, input);
  return { jobId: await insert(context, conditionId, { conditionId, chart: input }) };
}

export async function requestRefinement(
  context: Context,
  conditionId: number,
  input: RefinementRequest,
): Promise<{ readonly jobId: number }> {
  const condition = await conditionOf(context, conditionId);
  const wanted = input.colours.length + input.picture.length;
  if (!profiledProcess(condition.process))
    throw new Problem(
      'bad-input',
      `${condition.device} prints ${condition.process.name}, which Melto makes no profiles for.`,
      'Make ramps.',
    );
  if (wanted > 0 && channelCount(condition.process) > 4)
    throw new Problem(
      'bad-input',
      'Colours that come out exactly are of RGB and CMYK so far.',
      'Add patches where the model is least sure, with no colours and no picture.',
      'colours',
    );
  if (wanted + input.unsure === 0)
    throw new Problem(
      'bad-input',
      'Nothing is to be added.',
      'Choose patches, colours or a picture.',
      'unsure',
    );
  if (tiePatches(condition.process) + input.unsure + wanted * input.readings > REFINEMENT_MOST.patches)
    throw new Problem(
      'bad-input',
      `The chart would have more than ${REFINEMENT_MOST.patches} patches.`,
      'Take fewer colours or fewer readings of each.',
      'readings',
    );
  if (wanted > 0 && (await profileInForce(context, conditionId)) === undefined)
    throw new Problem(
      'not-ready',
      'Colours can be added once there is a profile that prints them.',
      'Build the profile first; a second chart of unsure patches needs none.',
      'colours',
    );
  for (const id of input.readingIds) await completeReading(context, conditionId, id);
  return { jobId: await insert(context, conditionId, { conditionId, refinement: input }) };
}

function insert(context: Context, conditionId: number, input: ChartJob): Promise<number> {
  const job = { kind: MAKE_CHART, lane: 'long', conditionId, input } as const;
  return insertJob(context.database, job, context.now());
}

interface ChartJob {
  readonly conditionId: number;
  readonly chart?: NewChart;
  readonly refinement?: RefinementRequest;
}

/** The work of the job. */
export async function makeChart(
  context: Context,
  { conditionId, chart, refinement }: ChartJob,
  onProgress: Progress,
): Promise<(inner: Context) => Promise<undefined>> {
  const words = 'Choosing the patches that tell most';
  onProgress(0, words);
  const made =
    refinement !== undefined
      ? await refinementChart(context, conditionId, refinement, onProgress)
      : chart !== undefined
        ? await profilingChart(context, conditionId, chart, (fraction) => onProgress(fraction, words))
        : undefined;
  if (made === undefined) throw new Error('a chart job without a chart');
  return async (inner) => {
    await storeChart(inner, made);
    return undefined;
  };
}

async function refinementChart(
  context: Context,
  conditionId: number,
  { readingIds, unsure, colours, picture, readings, paper, reader, patchSize }: RefinementRequest,
  onProgress: Progress,
): Promise<ChartToStore> {
  onProgress(0, 'Fitting the model');
  const { device, xyz } = await pooledReadings(context, readingIds[0], readingIds.slice(1));
  const { process } = await conditionOf(context, conditionId);
  const uncertainty = uncertaintyOf(process, device, xyz, (fraction) =>
    onProgress(0.4 * fraction, 'Fitting the model'),
  );
  const known = await profileInForce(context, conditionId);
  const totalInk = drivenByLight(process) ? Infinity : await totalInkAtInput(context, conditionId);
  const named = colours.map(({ name, lab }, i) => ({ name: uniqueName(name, i, colours), lab }));
  const wanted: WantedPatch[] =
    known === undefined
      ? []
      : [
          ...named.map(({ name, lab }) => ({ name, device: valuesOf(known.profile, lab, 'absolute') })),
          ...picture.map(({ lab }) => ({
            name: 'picture',
            device: valuesOf(known.profile, lab, 'perceptual'),
          })),
        ];
  const seed = context.seed();
  const form = { paper, reader, patchSize };
  onProgress(0.4, 'Choosing the patches that tell most');
  const extra = channelCount(process) > 4 ? placesOf(process, uncertainty) : undefined;
  const patches = refinementPatches(
    { wanted, readings, unsure, process, totalInk, seed, extra },
    uncertainty,
    (fraction) => onProgress(0.4 + 0.6 * fraction, 'Choosing the patches that tell most'),
  );
  // Wanted colours carry what was asked; the others what the model expects.
  const lab = new Float64Array(patches.names.length * 3);
  uncertainty.lab(patches.device, lab);
  const asked = new Map(named.map((colour) => [colour.name, colour.lab]));
  patches.names.forEach((name, i) => {
    const own = asked.get(name);
    if (own !== undefined) lab.set(own, 3 * i);
  });
  return {
    conditionId,
    purpose: 'profile',
    kind: wanted.length === 0 ? 'second' : 'refinement',
    title: wanted.length === 0 ? `second, ${unsure} unsure` : `refinement, ${patches.names.length}`,
    form,
    seed,
    ...patches,
    lab,
    layout: layoutChart(process, patches.device, paper, seed, needsOf(form)),
    process,
  };
}

/** Where the extra inks have their places; a refusal where the reading gives them none. */
function placesOf(process: Process, uncertainty: ModelUncertainty): ExtraInks {
  const placed = placeInksByModel(process, (row, lab) => uncertainty.lab(row, lab), 1);
  if ('extra' in placed) return placed.extra;
  throw new Problem(
    'bad-input',
    `${placed.issue}.`,
    'Read a chart that Melto made for these inks.',
    'readingIds',
  );
}

function valuesOf(profile: IccProfile, lab: readonly number[], intent: 'absolute' | 'perceptual'): number[] {
  const toDevice = unwrap(labToDevice(profile, intent));
  const values = new Float64Array(toDevice.outputs);
  toDevice.apply(lab, values);
  return [...values];
}

/** A name that no other colour of the list, and no other kind of patch, has. */
function uniqueName(name: string, index: number, colours: readonly NamedColour[]): string {
  const plain = name.trim().slice(0, 60) || `colour ${index + 1}`;
  const taken =
    RESERVED_NAMES.has(plain) || colours.slice(0, index).some((other) => other.name.trim() === plain);
  return taken ? `${plain} (${index + 1})` : plain;
}
