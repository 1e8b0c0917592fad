import { channelCount, drivenByLight } from '@melto/core/device/process';
import { uncertaintyOf } from '@melto/core/characterise/modelUncertainty';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { refinementPatches } from '@melto/core/refine/refinementPatches';
import { placeInksByModel } from '@melto/core/separate/placedInks';
import {
  colourListFrom,
  oneOf,
  paperOf,
  profiledReading,
  report,
  wholeNumber,
  writePatchFile,
} from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface ChartRefineOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly unsure: string;
  readonly colours?: string;
  readonly profile?: string;
  readonly readings: string;
  readonly tac: string;
  readonly seed: string;
  readonly paper: string;
  readonly instrument: string;
  readonly out: string;
  readonly json?: boolean;
}

/** A chart that adds to a reading: colours of a list through a profile, and where the model is least sure. */
export function chartRefine(options: ChartRefineOptions): void {
  const { process, device, xyz } = profiledReading(options.measured, options.measuredAs);
  const channels = channelCount(process);
  const unsure = wholeNumber(options.unsure, '--unsure', 0, 800);
  const readings = wholeNumber(options.readings, '--readings', 1, 6);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const paper = paperOf(options.paper);
  const needs = READER_NEEDS[oneOf(options.instrument, '--instrument', ['strip', 'spot', 'sheet'])];
  if ((options.colours === undefined) !== (options.profile === undefined))
    throw new UsageError('--colours: expected together with --profile, which says how they are printed');
  const colours = options.colours === undefined ? [] : colourListFrom(options.colours);
  if (colours.length + unsure === 0)
    throw new UsageError('--unsure: found 0 and no colours, expected something to add');
  const values = new Float64Array(colours.length * channels);
  if (options.profile !== undefined) {
    const toDevice = labToDevice(readProfile(options.profile), 'absolute');
    if (!toDevice.ok || toDevice.value.outputs !== channels)
      throw new UsageError(
        `${options.profile}: found no table from Lab to ${process.name}, expected ${drivenByLight(process) ? 'an' : 'a'} ${process.name} output profile`,
      );
    toDevice.value.apply(Float64Array.from(colours.flatMap(({ lab }) => [...lab])), values);
  }
  if (colours.length > 0 && channels > 4)
    throw new UsageError('--colours: colours that come out exactly are for RGB and CMYK so far');
  const uncertainty = uncertaintyOf(process, device, xyz);
  const places =
    channels > 4 ? placeInksByModel(process, (row, lab) => uncertainty.lab(row, lab), 1) : undefined;
  if (places !== undefined && 'issue' in places) throw new UsageError(`${options.measured}: ${places.issue}`);
  const patches = refinementPatches(
    {
      wanted: colours.map(({ name }, i) => ({
        name,
        device: [...values.subarray(channels * i, channels * (i + 1))],
      })),
      readings,
      unsure,
      process,
      extra: places?.extra,
      totalInk: wholeNumber(options.tac, '--tac', 120, 100 * Math.max(4, channels)) / 100,
      seed,
    },
    uncertainty,
  );
  const lab = new Float64Array(patches.names.length * 3);
  uncertainty.lab(patches.device, lab);
  const layout = layoutChart(process, patches.device, paper, seed, needs);
  writePatchFile(options.out, {
    ids: patches.names.map((_, i) => String(i + 1)),
    names: [...patches.names],
    process,
    device: patches.device,
    lab,
    layout: layoutColumns(layout),
    conditions: {},
    title: `${process.name} refinement, ${patches.names.length} patches`,
    originator: 'Melto',
    notes: [],
  });
  const count = patches.names.length;
  report(options.json, { patches: count, pages: layout.pages.length, out: options.out }, [
    `${count} patches on ${layout.pages.length} pages, ${colours.length} colours ${readings} times, ${unsure} where the model is least sure: ${options.out}`,
  ]);
}
