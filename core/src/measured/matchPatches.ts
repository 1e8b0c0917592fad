import { genericLabRows } from '../charts/expectedColours.ts';
import type { ChartLayout } from '../charts/layoutChart.ts';
import { channelCount } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { patchLab } from './patchLab.ts';
import type { MeasuredMode } from './measurement.ts';

/** A chart as it was printed. */
export interface PrintedChart {
  readonly process: Process;
  readonly ids: readonly string[];
  /** Row-major patch × channel, 0..1: as the chart asks, and as they were sent to the device. */
  readonly asked?: Float64Array;
  readonly sent: Float64Array;
  readonly layout: ChartLayout;
}

export type MatchedBy =
  | 'device values as asked'
  | 'device values as sent'
  | 'patch ids'
  | 'places'
  | 'order of reading'
  | 'order of the chart';

/** Which rows of a file belong to which patch of a chart. */
export interface PatchMatch {
  readonly by: MatchedBy;
  /** For each patch of the chart its rows in the file: none where it is missing, several where it was repeated. */
  readonly rows: readonly (readonly number[])[];
  /** Rows of the file that belong to no patch. */
  readonly foreign: readonly number[];
  /** How well the colours go with the patches: rank correlation of lightness with what is expected, −1 to 1. */
  readonly fit: number;
}

/** Rounding of device values to whole per cent or eight bits. */
const TOLERANCE = 1.5 / 255;
/** A way of matching without device values must fit by this much, and better than the others by the margin. */
const LEAST_FIT = 0.6;
const FIT_MARGIN = 0.15;

/**
 * Finds for each patch its rows in a file. Device values decide where the file has them. Without them ids, places and
 * order are tried, and the colours themselves say which of them is true; where none stands out, nothing is matched.
 */
export function matchPatches(chart: PrintedChart, measured: MeasuredMode): PatchMatch | undefined {
  const { set } = measured;
  const channels = channelCount(chart.process);
  const lightness = patchLab(set)?.filter((_, i) => i % 3 === 0);
  const expected = genericLabRows(chart.process, chart.sent, channels).filter((_, i) => i % 3 === 0);
  const matched = (by: MatchedBy, rows: readonly (readonly number[])[]): PatchMatch => {
    const taken = new Set(rows.flat());
    return {
      ...{ by, rows, fit: fitOf(rows, lightness, expected) },
      foreign: Array.from(set.ids.keys()).filter((row) => !taken.has(row)),
    };
  };
  if (set.device !== undefined && set.process !== undefined && channelCount(set.process) === channels) {
    const asked =
      chart.asked === undefined
        ? undefined
        : matched('device values as asked', byValues(chart.asked, chart, set.device, set.ids, channels));
    const sent = matched('device values as sent', byValues(chart.sent, chart, set.device, set.ids, channels));
    const best = asked !== undefined && asked.foreign.length <= sent.foreign.length ? asked : sent;
    return best.foreign.length < set.ids.length ? best : undefined;
  }
  if (set.device !== undefined) return undefined;
  const candidates = [
    byIds(chart.ids, set.ids),
    measured.places === undefined ? undefined : byPlaces(chart.layout, measured.places, false),
    measured.places === undefined ? undefined : byPlaces(chart.layout, measured.places, true),
  ]
    .map((rows, i) => (rows === undefined ? undefined : matched(i === 0 ? 'patch ids' : 'places', rows)))
    .filter((match) => match !== undefined);
  if (set.ids.length === chart.ids.length) {
    candidates.push(matched('order of reading', byOrder(chart.layout.pages.flat(2), chart.ids.length)));
    candidates.push(matched('order of the chart', byOrder([...chart.ids.keys()], chart.ids.length)));
  }
  const sorted = candidates.sort((a, b) => b.fit - a.fit);
  const [best] = sorted;
  if (best === undefined) return undefined;
  const named = sorted.find(({ by, foreign }) => by === 'patch ids' && foreign.length === 0);
  // Names that all belong to the chart are taken unless the colours clearly say otherwise.
  if (named !== undefined && best.fit - named.fit < FIT_MARGIN) return named;
  const other = sorted.find(({ rows }) => rows.some((own, i) => own.join() !== best.rows[i].join()));
  return best.fit >= LEAST_FIT && (other === undefined || best.fit - other.fit >= FIT_MARGIN)
    ? best
    : undefined;
}

/**
 * Rows whose device values are those of a patch. Of patches with the same values the one of the same id takes a row;
 * else they take them in turn, those first whose strips are in the file: it may hold one page of several.
 */
function byValues(
  values: Float64Array,
  { ids, layout }: PrintedChart,
  device: Float64Array,
  fileIds: readonly string[],
  channels: number,
): readonly (readonly number[])[] {
  const rows = ids.map((): number[] => []);
  const groups = groupsOf(values, channels).map((patches) => ({ patches, found: [] as number[] }));
  for (const row of fileIds.keys()) {
    const own = device.subarray(channels * row, channels * (row + 1));
    let nearest: (typeof groups)[number] | undefined;
    let least = TOLERANCE;
    for (const group of groups) {
      let most = 0;
      for (let c = 0; c < channels && most <= least; c++)
        most = Math.max(most, Math.abs(values[channels * group.patches[0] + c] - own[c]));
      if (most > least) continue;
      least = most;
      nearest = group;
    }
    nearest?.found.push(row);
  }
  for (const { patches, found } of groups) if (patches.length === 1) rows[patches[0]].push(...found);
  const shares = stripShares(
    layout,
    groups.filter(({ patches }) => patches.length === 1).flatMap(({ patches }) => patches),
    rows,
  );
  for (const { patches, found } of groups) {
    if (patches.length === 1) continue;
    const inFile = [...patches].sort((x, y) => shares[y] - shares[x]);
    for (const row of found) {
      const same = patches.find((patch) => ids[patch] === fileIds[row] && rows[patch].length === 0);
      const open = same ?? inFile.reduce((x, y) => (rows[y].length < rows[x].length ? y : x));
      rows[open].push(row);
    }
  }
  return rows;
}

/** For each patch how much of its strip a file holds, by the patches that are there once. */
function stripShares(
  { pages }: ChartLayout,
  once: readonly number[],
  rows: readonly (readonly number[])[],
): Float64Array {
  const shares = new Float64Array(rows.length);
  const known = new Set(once);
  for (const strip of pages.flat()) {
    const told = strip.filter((patch) => known.has(patch));
    const share = told.filter((patch) => rows[patch].length > 0).length / Math.max(1, told.length);
    for (const patch of strip) shares[patch] = share;
  }
  return shares;
}

/** Patches with the same device values. */
function groupsOf(values: Float64Array, channels: number): readonly (readonly number[])[] {
  const groups = new Map<string, number[]>();
  for (let row = 0; row * channels < values.length; row++) {
    const key = Array.from(values.subarray(channels * row, channels * (row + 1)), (value) =>
      value.toFixed(4),
    ).join();
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [row]);
    else group.push(row);
  }
  return [...groups.values()];
}

function byIds(
  ids: readonly string[],
  fileIds: readonly string[],
): readonly (readonly number[])[] | undefined {
  const places = new Map(ids.map((id, patch) => [id, patch]));
  if (places.size < ids.length || new Set(fileIds).size < fileIds.length) return undefined;
  const rows = ids.map((): number[] => []);
  for (const [row, id] of fileIds.entries()) {
    const patch = places.get(id);
    if (patch !== undefined) rows[patch].push(row);
  }
  return rows;
}

function byOrder(order: readonly number[], count: number): readonly (readonly number[])[] {
  const rows = Array.from({ length: count }, (): number[] => []);
  order.forEach((patch, row) => rows[patch].push(row));
  return rows;
}

/** Places such as `A1`: a letter for the strip and a number along it, or the other way round. */
function byPlaces(
  layout: ChartLayout,
  places: readonly string[],
  turned: boolean,
): readonly (readonly number[])[] | undefined {
  const strips = layout.pages.flat();
  const rows = Array.from({ length: strips.flat().length }, (): number[] => []);
  for (const [row, place] of places.entries()) {
    const [, letters = '', number = ''] = /^\s*([A-Z]{1,3})[-_ ]?(\d{1,4})\s*$/i.exec(place) ?? [];
    if (letters === '') return undefined;
    const letter = [...letters.toUpperCase()].reduce((sum, c) => 26 * sum + c.charCodeAt(0) - 64, 0) - 1;
    const [strip, along] = turned ? [Number(number) - 1, letter] : [letter, Number(number) - 1];
    const patch = strips[strip]?.[along];
    if (patch !== undefined) rows[patch].push(row);
  }
  return rows;
}

/** Rank correlation of measured and expected lightness over all rows that were matched; 0 where nothing varies. */
function fitOf(
  rows: readonly (readonly number[])[],
  lightness: Float64Array | undefined,
  expected: Float64Array,
): number {
  if (lightness === undefined) return 0;
  const pairs = rows.flatMap((own, patch) => own.map((row) => [lightness[row], expected[patch]] as const));
  if (pairs.length < 3) return 0;
  const [a, b] = [ranks(pairs.map(([own]) => own)), ranks(pairs.map(([, other]) => other))];
  const middle = (pairs.length - 1) / 2;
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < pairs.length; i++) {
    ab += (a[i] - middle) * (b[i] - middle);
    aa += (a[i] - middle) ** 2;
    bb += (b[i] - middle) ** 2;
  }
  return aa === 0 || bb === 0 ? 0 : ab / Math.sqrt(aa * bb);
}

/** Ranks from 0; equal values share the mean of theirs. */
function ranks(values: readonly number[]): Float64Array {
  const order = [...values.keys()].sort((a, b) => values[a] - values[b]);
  const out = new Float64Array(values.length);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to + 1 < order.length && values[order[to + 1]] === values[order[from]]) to++;
    for (let i = from; i <= to; i++) out[order[i]] = (from + to) / 2;
    from = to + 1;
  }
  return out;
}
