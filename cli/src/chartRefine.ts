import { CMYK } from '@melto/core/device/process';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { InkUncertainty } from '@melto/core/characterise/inkUncertainty';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { refinementPatches } from '@melto/core/refine/refinementPatches';
import { cmykReading, colourListFrom, oneOf, report, wholeNumber, writePatchFile } from './files.ts';
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
  const { device, xyz } = cmykReading(options.measured, options.measuredAs);
  const unsure = wholeNumber(options.unsure, '--unsure', 0, 800);
  const readings = wholeNumber(options.readings, '--readings', 1, 6);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const paper = oneOf(options.paper, '--paper', ['a4', 'letter', 'a3']);
  const needs = READER_NEEDS[oneOf(options.instrument, '--instrument', ['strip', 'spot', 'sheet'])];
  if ((options.colours === undefined) !== (options.profile === undefined))
    throw new UsageError('--colours: expected together with --profile, which says how they are printed');
  const colours = options.colours === undefined ? [] : colourListFrom(options.colours);
  if (colours.length + unsure === 0)
    throw new UsageError('--unsure: found 0 and no colours, expected something to add');
  const inks = new Float64Array(colours.length * 4);
  if (options.profile !== undefined) {
    const toInks = labToDevice(readProfile(options.profile), 'absolute');
    if (!toInks.ok || toInks.value.outputs !== 4)
      throw new UsageError(
        `${options.profile}: found no table from Lab to CMYK, expected a CMYK output profile`,
      );
    toInks.value.apply(Float64Array.from(colours.flatMap(({ lab }) => [...lab])), inks);
  }
  const model = fitInkModel(device, 4, xyz);
  const patches = refinementPatches(
    {
      wanted: colours.map(({ name }, i) => ({ name, device: [...inks.subarray(4 * i, 4 * i + 4)] })),
      readings,
      unsure,
      totalInk: wholeNumber(options.tac, '--tac', 120, 400) / 100,
      seed,
    },
    new InkUncertainty(model),
  );
  const lab = new Float64Array(patches.names.length * 3);
  inkModelLab(model, patches.device, lab);
  const layout = layoutChart(CMYK, patches.device, paper, seed, needs);
  writePatchFile(options.out, {
    ids: patches.names.map((_, i) => String(i + 1)),
    names: [...patches.names],
    process: CMYK,
    device: patches.device,
    lab,
    layout: layoutColumns(layout),
    conditions: {},
    title: `CMYK refinement, ${patches.names.length} patches`,
    originator: 'Melto',
    notes: [],
  });
  const count = patches.names.length;
  report(options.json, { patches: count, pages: layout.pages.length, out: options.out }, [
    `${count} patches on ${layout.pages.length} pages, ${colours.length} colours ${readings} times, ${unsure} where the model is least sure: ${options.out}`,
  ]);
}
