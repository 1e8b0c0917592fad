import { inkDensitiesOfXyz } from '../density/inkDensities.ts';
import { mean } from '../numerics/statistics.ts';
import { PROCESS_INKS } from './toneMeasure.ts';
import type { ProcessInk, TonePatch } from './toneMeasure.ts';

/** The patches of one ink alone, as they were read. */
export interface InkRamp {
  readonly ink: ProcessInk;
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
 * The single-ink ramps of a CMYK reading, papers included with each; inks with fewer than five tones are left out.
 * @param device row-major × 4, 0..1.
 * @param densities absolute, by the filters of C, M, Y, K, row-major × 4; made from XYZ where not given.
 */
export function inkRamps(
  device: Float64Array,
  xyz: Float64Array,
  densities: Float64Array = inkDensitiesOfXyz(xyz),
): InkRamp[] {
  const count = device.length / 4;
  if (xyz.length !== count * 3) throw new RangeError(`${count} patches with ${xyz.length} XYZ values`);
  return PROCESS_INKS.flatMap((ink, channel) => {
    const rows: number[] = [];
    const tones = new Set<number>();
    for (let i = 0; i < count; i++) {
      let others = 0;
      for (let c = 0; c < 4; c++) if (c !== channel) others += device[4 * i + c];
      if (others > 1e-6) continue;
      rows.push(i);
      tones.add(Math.round(device[4 * i + channel] * 1e6));
    }
    if (tones.size < 5) return [];
    const papers = rows.filter((row) => device[4 * row + channel] < 1e-6);
    const base = mean(papers.map((row) => densities[4 * row + channel]));
    return [
      {
        ink,
        rows,
        tone: Float64Array.from(rows, (row) => device[4 * row + channel]),
        xyz: Float64Array.from(
          { length: rows.length * 3 },
          (_, i) => xyz[3 * rows[Math.floor(i / 3)] + (i % 3)],
        ),
        density: Float64Array.from(
          rows,
          (row) => densities[4 * row + channel] - (papers.length > 0 ? base : 0),
        ),
      },
    ];
  });
}

/** One patch of a ramp as `toneQuantity` takes it. */
export function patchOf(ramp: InkRamp, i: number): TonePatch {
  return { xyz: ramp.xyz.subarray(3 * i, 3 * i + 3), density: ramp.density[i] };
}
