import { needsOf } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { chartPatches } from '@melto/core/charts/chartPatches';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { expectedPlaces, makeManyInkChart } from '@melto/core/charts/manyInkChart';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { profiledProcess } from '@melto/core/characterise/leastPatches';
import { channelCount, CMYK, RGB, sameProcess } from '@melto/core/device/process';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { unwrap } from '@melto/core/result';
import { totalInkAtInput } from '../calibration/totalInk.ts';
import { storeChart } from '../charts/chart.ts';
import type { ChartToStore } from '../charts/chart.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { profileInForce } from '../ledger/inForce.ts';

export interface NewChart extends ChartForm {
  readonly patches: number;
}

export async function createChart(
  context: Context,
  conditionId: number,
  input: NewChart,
): Promise<{ readonly id: number }> {
  return { id: await storeChart(context, await profilingChart(context, conditionId, input)) };
}

/** A profiling chart, not stored yet. */
export async function profilingChart(
  context: Context,
  conditionId: number,
  input: NewChart,
  onProgress: (fraction: number) => void = () => {},
): Promise<ChartToStore> {
  const { process, device: deviceName } = await conditionOf(context, conditionId);
  const rgb = sameProcess(process, RGB);
  const four = sameProcess(process, CMYK);
  if (!profiledProcess(process))
    throw new Problem(
      'bad-input',
      `${deviceName} prints ${process.name}; profiling charts are of RGB, of CMYK, or of these four and up to four other inks.`,
      'Make ramps.',
    );
  const placed = rgb || four ? undefined : expectedPlaces(process);
  if (placed !== undefined && 'issue' in placed)
    throw new Problem(
      'bad-input',
      `No chart for ${deviceName}: ${placed.issue}.`,
      'Name its inks so, or measure a chart of your own and give its file.',
    );
  const { least, most } = chartPatches(process);
  if (!Number.isInteger(input.patches) || input.patches < least || input.patches > most)
    throw new Problem(
      'bad-input',
      `A chart has ${least} to ${most} patches.`,
      'Give a whole number between them.',
      'patches',
    );
  const { patches, ...form } = input;
  const seed = context.seed();
  const { device, names } = rgb
    ? rgbChart(patches, seed)
    : placed !== undefined
      ? makeManyInkChart(
          patches,
          seed,
          channelCount(process),
          placed.extra,
          await totalInkAtInput(context, conditionId),
        )
      : makeCmykChart(
          patches,
          seed,
          await totalInkAtInput(context, conditionId),
          await knownColours(context, conditionId),
          onProgress,
        );
  return {
    conditionId,
    purpose: 'profile',
    kind: 'first',
    process,
    title: `${process.name} ${patches}`,
    form,
    seed,
    device,
    names,
    layout: layoutChart(process, device, form.paper, seed, needsOf(form)),
  };
}

/** What is known of the colours of a device with inks: the profile in force, else a generic press. */
async function knownColours(
  context: Context,
  conditionId: number,
): Promise<(device: ArrayLike<number>) => ArrayLike<number>> {
  const known = await profileInForce(context, conditionId);
  if (known === undefined) return genericPressLab;
  const table = unwrap(deviceToLab(known.profile, 'absolute'));
  const lab = new Float64Array(3);
  return (device) => {
    table.apply(device, lab);
    return lab;
  };
}

function rgbChart(patches: number, seed: number): NamedPatches {
  const { device, roles } = makeRgbChart(patches, seed);
  return { device, names: roles };
}
