import { curvesFromCsv } from '@melto/core/curveFiles/curvesFromCsv';
import { makeLightInkChart } from '@melto/core/charts/lightInkChart';
import type { InkPair } from '@melto/core/charts/lightInkChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { inkNamesProblem } from '@melto/core/device/inkNames';
import { channelCount, channelNames, inkProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import { splitJoined } from '@melto/core/tone/splitJoined';
import type { JoinedInk } from '@melto/core/tone/splitJoined';
import {
  deviceOf,
  measuredAs,
  paperOf,
  readBytes,
  readMeasuredFile,
  readPatchFile,
  report,
  wholeNumber,
  writePatchFile,
} from './files.ts';
import { UsageError } from './usageError.ts';

export interface ChartLightOptions {
  readonly inks: string;
  readonly pairs: readonly string[];
  readonly seed: string;
  readonly paper: string;
  readonly out: string;
  readonly json?: boolean;
}

/** The inks of a device as a person names them, in its own order. */
function inksNamed(text: string): Process {
  const names = text.split(',').map((name) => name.trim());
  const problem = inkNamesProblem(names);
  if (problem !== undefined) throw new UsageError(`--inks: ${problem}`);
  return inkProcess(names);
}

function placeOf(process: Process, ink: string, option: string): number {
  const place = channelNames(process).indexOf(ink.trim());
  if (place < 0)
    throw new UsageError(`${option}: found "${ink}", expected one of ${channelNames(process).join(', ')}`);
  return place;
}

/** A chart by which light inks are joined to their full ones. */
export function chartLight(options: ChartLightOptions): void {
  const process = inksNamed(options.inks);
  const pairs = options.pairs.map((pair): InkPair => {
    const parts = pair.split(',');
    if (parts.length !== 2 || parts[0].trim() === parts[1].trim())
      throw new UsageError(`--pairs: found "${pair}", expected a light ink and its full one, as LC,C`);
    return [placeOf(process, parts[0], '--pairs'), placeOf(process, parts[1], '--pairs')];
  });
  if (new Set(pairs.flat()).size < 2 * pairs.length)
    throw new UsageError('--pairs: an ink stands in two of them');
  const { device, names } = makeLightInkChart(channelNames(process), pairs);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const layout = layoutChart(process, device, paperOf(options.paper), seed);
  writePatchFile(options.out, {
    ids: names.map((_, i) => String(i + 1)),
    ...{ names: [...names], process, device, layout: layoutColumns(layout), conditions: {}, notes: [] },
    ...{ title: 'Light inks', originator: 'Melto' },
  });
  report(options.json, { patches: names.length, pages: layout.pages.length, out: options.out }, [
    `${names.length} patches on ${layout.pages.length} pages: ${options.out}`,
  ]);
}

export interface ChartSplitOptions {
  readonly inks: string;
  readonly join: readonly string[];
  readonly out: string;
  readonly json?: boolean;
}

/** A chart in which light and full inks are one channel, as values of the device's own inks. */
export function chartSplit(file: string, options: ChartSplitOptions): void {
  const set = readPatchFile(file);
  const { device, process } = deviceOf(file, set);
  const target = inksNamed(options.inks);
  const joins = options.join.map((path) => joinFrom(path, process, target));
  const taken = new Set(joins.flatMap(({ inks }) => inks.map(({ to }) => to)));
  const joined = new Set(joins.map(({ from }) => from));
  if (joined.size < joins.length || taken.size < 2 * joins.length)
    throw new UsageError('--join: an ink stands in two of the files');
  const own = new Map<number, number>();
  channelNames(process).forEach((name, from) => {
    if (!joined.has(from)) own.set(from, placeOf(target, name, '--inks'));
  });
  const idle = channelNames(target).filter((_, to) => !taken.has(to) && ![...own.values()].includes(to));
  if (idle.length > 0)
    throw new UsageError(
      `--inks: nothing is told of ${idle.join(', ')}; expected a channel of the chart or a --join of each`,
    );
  const values = splitJoined(device, channelCount(process), channelCount(target), joins, own);
  writePatchFile(options.out, { ...set, process: target, device: values });
  const inks = channelCount(target);
  let most = 0;
  for (let at = 0; at < values.length; at += inks)
    most = Math.max(most, Math.round(1000 * values.subarray(at, at + inks).reduce((a, b) => a + b, 0)) / 10);
  report(
    options.json,
    { patches: set.ids.length, inks: channelNames(target), mostInk: most, out: options.out },
    [
      `${set.ids.length} patches as ${channelNames(target).join(' ')}, ${most} % of ink at most: ${options.out}`,
    ],
  );
}

/** A file of `melto curves join`: its two inks, the full one named as the channel that carries both. */
function joinFrom(path: string, process: Process, target: Process): JoinedInk {
  const read = curvesFromCsv(Buffer.from(readBytes(path)).toString('utf8'), true);
  if (!read.ok) throw new UsageError(`${path}: ${read.issues.map(issueText).join('; ')}`);
  const names = [...read.value.curves.keys()];
  // Heads of files are read in capitals.
  const inkOf = (name: string): number => channelNames(target).findIndex((own) => own.toUpperCase() === name);
  const full = channelNames(process).findIndex((own) => names.includes(own.toUpperCase()));
  if (names.length !== 2 || full < 0 || names.some((name) => inkOf(name) < 0))
    throw new UsageError(
      `${path}: found curves of ${names.join(', ')}, expected those of a light ink and its full one, as melto curves join writes them`,
    );
  return {
    from: full,
    inks: [...read.value.curves].map(([name, curve]) => ({ to: inkOf(name), curve })),
  };
}

export interface ChartValuesOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly out: string;
  readonly json?: boolean;
}

/** What was measured of a chart that was printed by other values, with the chart's own: patch by patch, by their ids. */
export function chartValues(file: string, options: ChartValuesOptions): void {
  const chart = readPatchFile(file);
  const { device, process } = deviceOf(file, chart);
  const measured = readMeasuredFile(options.measured, measuredAs(options.measuredAs));
  const places = new Map(chart.ids.map((id, row) => [id, row]));
  if (places.size < chart.ids.length) throw new UsageError(`${file}: an id stands twice`);
  if (measured.spectra === undefined && measured.lab === undefined && measured.xyz === undefined)
    throw new UsageError(`${options.measured}: found no colours`);
  const channels = channelCount(process);
  const values = new Float64Array(measured.ids.length * channels);
  measured.ids.forEach((id, row) => {
    const at = places.get(id);
    if (at === undefined)
      throw new UsageError(`${options.measured}: its patch ${id.slice(0, 40)} is none of ${file}`);
    values.set(device.subarray(channels * at, channels * (at + 1)), channels * row);
  });
  writePatchFile(options.out, { ...measured, process, device: values });
  report(options.json, { patches: measured.ids.length, out: options.out }, [
    `${measured.ids.length} patches with values of ${process.name}: ${options.out}`,
  ]);
}
