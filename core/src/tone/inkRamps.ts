import { inkDensitiesOfXyz } from '../density/inkDensities.ts';
import { mean } from '../numerics/statistics.ts';
import { channelCount } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { TonePatch } from './toneMeasure.ts';

/** The patches of one ink alone, as they were read. */
export interface InkRamp {
  /** Name of its channel, and its place in the process. */
  readonly ink: string;
  readonly channel: number;
  /** Row of each patch in the reading. */
  readonly rows: readonly number[];
  /** Tone values as sent to the front end, 0..1. */
  readonly tone: Float64Array;
  /** Row-major × 3, Y = 100. */
  readonly xyz: Float64Array;
  /** Density over paper by the ink's filter. */
  readonly density: Float64Array;
}

/**
 * The single-ink ramps of a reading, papers included with each; inks with fewer than five tones are left out. Density
 * is by the filter of the ink; of inks that are not C, M, Y or K by the one that gives the most at full tone (ISO 5-3
 * names no filter for them).
 * @param device row-major × channel, 0..1.
 * @param densities absolute, by the filters of C, M, Y, K, row-major × 4; made from XYZ where not given.
 */
export function inkRamps(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
  densities: Float64Array = inkDensitiesOfXyz(xyz),
): InkRamp[] {
  const channels = channelCount(process);
  const count = device.length / channels;
  if (xyz.length !== count * 3) throw new RangeError(`${count} patches with ${xyz.length} XYZ values`);
  return process.channels.flatMap(({ name: ink }, channel) => {
    const rows: number[] = [];
    const tones = new Set<number>();
    for (let i = 0; i < count; i++) {
      let others = 0;
      for (let c = 0; c < channels; c++) if (c !== channel) others += device[channels * i + c];
      if (others > 1e-6) continue;
      rows.push(i);
      tones.add(Math.round(device[channels * i + channel] * 1e6));
    }
    if (tones.size < 5) return [];
    const valueOf = (row: number): number => device[channels * row + channel];
    const filter =
      FILTERS.indexOf(ink) >= 0 ? FILTERS.indexOf(ink) : densest(densities, fullest(rows, valueOf));
    const papers = rows.filter((row) => valueOf(row) < 1e-6);
    const base = mean(papers.map((row) => densities[4 * row + filter]));
    return [
      {
        ink,
        channel,
        rows,
        tone: Float64Array.from(rows, valueOf),
        xyz: Float64Array.from(
          { length: rows.length * 3 },
          (_, i) => xyz[3 * rows[Math.floor(i / 3)] + (i % 3)],
        ),
        density: Float64Array.from(
          rows,
          (row) => densities[4 * row + filter] - (papers.length > 0 ? base : 0),
        ),
      },
    ];
  });
}

/** Inks whose filter is known, in the order of the densities. */
const FILTERS: readonly string[] = ['C', 'M', 'Y', 'K'];

function fullest(rows: readonly number[], valueOf: (row: number) => number): number {
  return rows.reduce((best, row) => (valueOf(row) > valueOf(best) ? row : best));
}

/** Of the red, green and blue filter the one that gives the most for a patch. */
function densest(densities: Float64Array, row: number): number {
  return [0, 1, 2].reduce((best, filter) =>
    densities[4 * row + filter] > densities[4 * row + best] ? filter : best,
  );
}

/** One patch of a ramp as `toneQuantity` takes it. */
export function patchOf(ramp: InkRamp, i: number): TonePatch {
  return { xyz: ramp.xyz.subarray(3 * i, 3 * i + 3), density: ramp.density[i] };
}
