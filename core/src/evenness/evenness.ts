import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { evaluateCubicSpline, fitSmoothingSpline } from '../numerics/smoothingSpline.ts';
import { mean } from '../numerics/statistics.ts';
import { PROCESS_INKS } from '../tone/toneMeasure.ts';

/** Zones across the width unless a device has its own number. */
export const ZONES = 12;

export interface InkEvennessReading {
  readonly ink: string;
  /** Density of the solid over paper by zone, and smoothed across the width. */
  readonly density: readonly number[];
  readonly smooth: readonly number[];
  /** ΔE00 of each zone's mean colour to the mean over the width, solid and midtone averaged. */
  readonly deltaE: readonly number[];
  /** Share of density to add in each zone. */
  readonly correction: readonly number[];
}

export interface Evenness {
  readonly inks: readonly InkEvennessReading[];
  /** Mean and largest ΔE00 across the width, all inks, solids and midtones. */
  readonly mean: number;
  readonly largest: number;
}

/**
 * An ink's density answers to its amount by about this share near the solid: D = D∞(1 − e^(−m·s)) of Tollenaar and
 * Ernst has an elasticity of 0.7 to 0.8 where presses run.
 */
const DENSITY_ANSWER = 0.75;
/** Corrections beyond this share are held back: something else is wrong then. */
export const MOST_CORRECTION = 0.15;

/**
 * Evenness of solids and a midtone across the width, and the correction of each zone.
 * @param device row-major × 4; patches of one ink alone count.
 * @param densities absolute, by the filters of C, M, Y, K, row-major × 4.
 * @param across place of each patch across the width, 0..1.
 * @param present corrections that were in force, by channel and zone; the new ones include them.
 */
export function evennessOf(
  device: Float64Array,
  xyz: Float64Array,
  densities: Float64Array,
  across: ArrayLike<number>,
  present?: readonly (readonly number[])[],
): Evenness {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const all: number[] = [];
  const papers = Array.from({ length: device.length / 4 }, (_, row) => row).filter(
    (row) => device[4 * row] + device[4 * row + 1] + device[4 * row + 2] + device[4 * row + 3] < 1e-6,
  );
  if (papers.length === 0) throw new RangeError('an evenness chart without bare paper');
  const inks = PROCESS_INKS.map((ink, channel): InkEvennessReading => {
    const rows = rowsOf(device, channel);
    const base = mean(papers.map((row) => densities[4 * row + channel]));
    const solids = rows.filter(({ tone }) => tone > 0.99);
    const tones = [...new Set(rows.map(({ tone }) => tone))];
    const zoneOf = (row: number): number => Math.min(ZONES - 1, Math.floor(across[row] * ZONES));
    const densityOf = (row: number): number => densities[4 * row + channel] - base;
    const density = Array.from({ length: ZONES }, (_, zone) =>
      mean(solids.filter(({ row }) => zoneOf(row) === zone).map(({ row }) => densityOf(row))),
    );
    const smooth = smoothAcross(
      solids.map(({ row }) => across[row]),
      solids.map(({ row }) => densityOf(row)),
    );
    const middle = mean(smooth);
    const deltaE = density.map((_, zone) =>
      mean(
        tones.flatMap((tone) => {
          const same = rows.filter((patch) => patch.tone === tone);
          const own = same.filter(({ row }) => zoneOf(row) === zone);
          if (own.length === 0) return [];
          const [width, here] = [same, own].map((list) =>
            [0, 1, 2].map((axis) => mean(list.map(({ row }) => lab[3 * row + axis]))),
          );
          return [deltaE2000Of(width[0], width[1], width[2], here[0], here[1], here[2])];
        }),
      ),
    );
    all.push(...deltaE.filter(Number.isFinite));
    const correction = smooth.map((value, zone) => {
      const share = (middle / value - 1) / DENSITY_ANSWER + (present?.[channel]?.[zone] ?? 0);
      return Math.min(MOST_CORRECTION, Math.max(-MOST_CORRECTION, share));
    });
    return { ink, density, smooth, deltaE, correction };
  });
  return { inks, mean: mean(all), largest: Math.max(...all) };
}

function rowsOf(device: Float64Array, channel: number): { row: number; tone: number }[] {
  const rows: { row: number; tone: number }[] = [];
  for (let row = 0; row * 4 < device.length; row++) {
    let others = 0;
    for (let c = 0; c < 4; c++) if (c !== channel) others += device[4 * row + c];
    const tone = device[4 * row + channel];
    if (others < 1e-6 && tone > 0.2) rows.push({ row, tone });
  }
  return rows;
}

/** Smooth course over the width, at the middles of the zones; the smoothing follows the noise. */
function smoothAcross(places: readonly number[], values: readonly number[]): number[] {
  const byPlace = new Map<number, number[]>();
  places.forEach((place, i) => {
    const key = Math.round(place * 1e4) / 1e4;
    byPlace.set(key, [...(byPlace.get(key) ?? []), values[i]]);
  });
  const knots = [...byPlace].sort(([a], [b]) => a - b);
  const { spline } = fitSmoothingSpline(
    knots.map(([place]) => place),
    knots.map(([, list]) => mean(list)),
    knots.map(([, list]) => list.length),
  );
  return Array.from({ length: ZONES }, (_, zone) => evaluateCubicSpline(spline, (zone + 0.5) / ZONES));
}
