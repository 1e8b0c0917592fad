import { channelCount } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { genericLabRows } from './expectedColours.ts';
import { pageCapacity, STRIP_READER_NEEDS } from './pageGeometry.ts';
import type { InstrumentNeeds, PaperName } from './pageGeometry.ts';

/** Neighbours in a strip should differ by this much, so that an instrument finds their edges. */
export const NEIGHBOUR_DELTA_E = 10;
const SWAP_TRIES = 400;

/** A chart on paper: for each page its strips, each a list of patch indices from left to right. */
export interface ChartLayout {
  readonly paper: PaperName;
  readonly pages: readonly (readonly (readonly number[])[])[];
}

/**
 * Scrambles patches by a seed and deals them to strips and pages whose lengths differ by one at most; neighbours
 * differ by ΔE00 10 where that can be had (by the colours of a generic device), equal patches lie strips apart.
 */
export function layoutChart(
  process: Process,
  device: Float64Array,
  paper: PaperName,
  seed: number,
  needs: InstrumentNeeds = STRIP_READER_NEEDS,
): ChartLayout {
  const count = device.length / channelCount(process);
  if (count === 0) throw new RangeError('a chart without patches');
  const { patchesPerStrip, stripsPerPage } = pageCapacity(paper, needs);
  const stripTotal = Math.ceil(count / patchesPerStrip);
  const pageTotal = Math.ceil(stripTotal / stripsPerPage);
  const order = scramble(process, device, Math.ceil(count / stripTotal), seed);
  const pages: number[][][] = [];
  let at = 0;
  for (let page = 0, strip = 0; page < pageTotal; page++) {
    const strips: number[][] = [];
    const last = Math.round(((page + 1) * stripTotal) / pageTotal);
    for (; strip < last; strip++) {
      const end = Math.round(((strip + 1) * count) / stripTotal);
      strips.push(order.slice(at, end));
      at = end;
    }
    pages.push(strips);
  }
  return { paper, pages };
}

/** A random order that is then mended by swaps. */
function scramble(process: Process, device: Float64Array, stripLength: number, seed: number): number[] {
  const channels = channelCount(process);
  const lab = genericLabRows(process, device, channels);
  const random = createRandom(seed);
  const order = shuffle(
    Array.from({ length: device.length / channels }, (_, i) => i),
    random,
  );
  const key = (i: number): string => device.subarray(i * channels, (i + 1) * channels).join();
  const keys = Array.from(order.keys(), key);
  mend(order, lab, keys, stripLength, random);
  return order;
}

function mend(
  order: number[],
  lab: Float64Array,
  keys: readonly string[],
  stripLength: number,
  random: Random,
): void {
  const differ = (i: number, j: number): boolean =>
    deltaE2000Of(lab[3 * i], lab[3 * i + 1], lab[3 * i + 2], lab[3 * j], lab[3 * j + 1], lab[3 * j + 2]) >=
    NEIGHBOUR_DELTA_E;
  const fits = (position: number, patch: number): boolean => {
    const before = order[position - 1];
    const after = order[position + 1];
    if (before !== undefined && !differ(before, patch)) return false;
    if (after !== undefined && !differ(after, patch)) return false;
    for (
      let near = Math.max(0, position - stripLength);
      near <= Math.min(order.length - 1, position + stripLength);
      near++
    )
      if (near !== position && keys[order[near]] === keys[patch]) return false;
    return true;
  };
  for (let position = 0; position < order.length; position++) {
    if (fits(position, order[position])) continue;
    for (let attempt = 0; attempt < SWAP_TRIES; attempt++) {
      const other = random.below(order.length);
      if (Math.abs(other - position) < 2) continue;
      if (fits(position, order[other]) && fits(other, order[position])) {
        [order[position], order[other]] = [order[other], order[position]];
        break;
      }
    }
  }
}
