import { baseInks } from '@melto/core/device/baseInks';
import { channelCount, CMYK, inkProcess, RGB } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { chainChart, inkChainChart } from '@melto/core/chain/chainChart';
import { CMYK_CHART_PATCHES, makeCmykChart } from '@melto/core/charts/cmykChart';
import { makeEvennessChart } from '@melto/core/charts/evennessChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { layoutCopies, layoutInOrder } from '@melto/core/charts/layoutCopies';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { expectedPlaces, MANY_INK_CHART_PATCHES, makeManyInkChart } from '@melto/core/charts/manyInkChart';
import { makeNearNeutralChart } from '@melto/core/charts/nearNeutralChart';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import type { InstrumentNeeds, PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import { makeRampChart, RAMP_STEPS } from '@melto/core/charts/rampChart';
import { makeRgbChart, RGB_CHART_PATCHES } from '@melto/core/charts/rgbChart';
import { oneOf, paperOf, report, wholeNumber, writePatchFile } from './files.ts';
import { UsageError } from './usageError.ts';

export interface ChartMakeOptions {
  readonly process: string;
  readonly kind?: string;
  readonly patches?: string;
  readonly steps: string;
  readonly copies?: string;
  readonly order: string;
  readonly tac: string;
  readonly instrument: string;
  readonly seed: string;
  readonly paper: string;
  readonly out: string;
  readonly json?: boolean;
}

const RGB_KINDS = ['profile', 'job'] as const;
const CMYK_KINDS = ['profile', 'job', 'ramps', 'near-neutral', 'evenness'] as const;

export function chartMake(options: ChartMakeOptions): void {
  const process = processOf(options.process);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const paper = paperOf(options.paper);
  const instrument = oneOf(options.instrument, '--instrument', ['strip', 'spot', 'sheet']);
  const { device, names, layout } =
    process === RGB
      ? rgbChart(options, paper, seed, instrument)
      : process === CMYK
        ? cmykChart(options, paper, seed, instrument)
        : manyInkChart(process, options, paper, seed, instrument);
  const title =
    process === RGB
      ? `RGB chart, ${names.length} patches`
      : `${process.name} ${options.kind ?? 'profile'} chart`;
  writePatchFile(options.out, {
    ids: names.map((_, i) => String(i + 1)),
    names: [...names],
    process,
    device,
    layout: layoutColumns(layout),
    conditions: {},
    title: options.kind === 'job' ? 'Job check' : title,
    originator: 'Melto',
    notes: [],
  });
  const strips = layout.pages.reduce((sum, page) => sum + page.length, 0);
  report(options.json, { patches: names.length, pages: layout.pages.length, strips, out: options.out }, [
    `${names.length} patches in ${strips} strips on ${layout.pages.length} pages: ${options.out}`,
  ]);
}

/** `rgb`, `cmyk`, or the letters of the inks of a device in its own order: `cmykog`. */
function processOf(text: string): Process {
  const name = text.toUpperCase();
  if (name === 'RGB') return RGB;
  if (name === 'CMYK') return CMYK;
  const letters = [...name];
  if (
    !/^[A-Z]{5,8}$/.test(name) ||
    new Set(letters).size < letters.length ||
    baseInks(inkProcess(letters)) === undefined
  )
    throw new UsageError(
      `--process: found "${text}", expected rgb, cmyk, or letters of five to eight inks with C, M, Y and K among them, as cmykog`,
    );
  return inkProcess(letters);
}

const MANY_INK_KINDS = ['profile', 'ramps', 'near-neutral'] as const;

function manyInkChart(
  process: Process,
  options: ChartMakeOptions,
  paper: PaperName,
  seed: number,
  instrument: ReaderKind,
): LaidOut {
  const kind = oneOf(options.kind ?? 'profile', '--kind', MANY_INK_KINDS);
  const needs = READER_NEEDS[instrument];
  if (kind === 'ramps') return copiesOf(process, options, paper, seed, needs);
  if (kind === 'near-neutral')
    return copiesOf(process, options, paper, seed, needs, makeNearNeutralChart(process));
  const { least, most } = MANY_INK_CHART_PATCHES;
  const patches = wholeNumber(options.patches ?? '', '--patches', least, most);
  const inks = channelCount(process);
  const totalInk = wholeNumber(options.tac, '--tac', 120, 100 * inks) / 100;
  const placed = expectedPlaces(process);
  if ('issue' in placed) throw new UsageError(`--process: ${placed.issue}`);
  const chart = makeManyInkChart(patches, seed, inks, placed.extra, totalInk);
  return { ...chart, layout: layoutChart(process, chart.device, paper, seed, needs) };
}

type LaidOut = NamedPatches & { readonly layout: ChartLayout };

function rgbChart(
  options: ChartMakeOptions,
  paper: PaperName,
  seed: number,
  instrument: ReaderKind,
): LaidOut {
  if (options.kind !== undefined) oneOf(options.kind, '--kind', RGB_KINDS);
  if (options.kind === 'job') {
    const picture = chainChart();
    return { ...picture, layout: layoutChart(RGB, picture.device, paper, seed, READER_NEEDS[instrument]) };
  }
  if (options.patches === undefined)
    throw new UsageError('--patches: found nothing, expected a whole number from 100 to 3000');
  const patches = wholeNumber(options.patches, '--patches', RGB_CHART_PATCHES.least, RGB_CHART_PATCHES.most);
  const { device, roles } = makeRgbChart(patches, seed);
  return { device, names: roles, layout: layoutChart(RGB, device, paper, seed, READER_NEEDS[instrument]) };
}

function cmykChart(
  options: ChartMakeOptions,
  paper: PaperName,
  seed: number,
  instrument: ReaderKind,
): LaidOut {
  const kind = oneOf(options.kind ?? 'profile', '--kind', CMYK_KINDS);
  const needs = READER_NEEDS[instrument];
  if (kind === 'evenness') return makeEvennessChart(paper, needs);
  if (kind === 'job') {
    const picture = inkChainChart();
    return { ...picture, layout: layoutChart(CMYK, picture.device, paper, seed, needs) };
  }
  if (kind === 'profile') {
    const { least, most } = CMYK_CHART_PATCHES;
    const patches = wholeNumber(options.patches ?? '', '--patches', least, most);
    const chart = makeCmykChart(patches, seed, wholeNumber(options.tac, '--tac', 120, 400) / 100);
    return { ...chart, layout: layoutChart(CMYK, chart.device, paper, seed, needs) };
  }
  if (kind === 'ramps') return copiesOf(CMYK, options, paper, seed, needs);
  return copiesOf(CMYK, options, paper, seed, needs, makeNearNeutralChart());
}

/** Ramps, or patches that are given, in several copies. */
function copiesOf(
  process: Process,
  options: ChartMakeOptions,
  paper: PaperName,
  seed: number,
  needs: InstrumentNeeds,
  patches?: NamedPatches,
): LaidOut {
  const steps = wholeNumber(options.steps, '--steps', RAMP_STEPS.least, RAMP_STEPS.most);
  const copies = wholeNumber(options.copies ?? (patches === undefined ? '4' : '2'), '--copies', 1, 8);
  const one = patches ?? makeRampChart(process, { steps, totalInk: true });
  const whole = repeatPatches(one, copies);
  const order = oneOf(options.order, '--order', ['scrambled', 'in-order']);
  const layout =
    order === 'scrambled'
      ? layoutCopies(process, one.device, copies, paper, seed, needs)
      : layoutInOrder(whole.names.length, paper, needs);
  return { ...whole, layout };
}
