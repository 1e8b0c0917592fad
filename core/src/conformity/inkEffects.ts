import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { groupsOf } from './judgeColours.ts';
import type { ColourPair } from './judgeColours.ts';
import { primaryRows } from './primaryRows.ts';

/** Typical tone value increase, for the share that an ink has in a tint. */
const GAIN = 0.15;

/** What a change of one ink, or of the paper, does to measured colours, to first order of a simple mixing model. */
export interface InkEffects {
  /** The colour of a pair where the solid of an ink had this share more density (0.1 = 10 % more). */
  readonly withDensity: (pair: ColourPair, ink: number, change: number) => Lab;
  /** The colour of a pair where the midtone of an ink gained this much more, 0..1. */
  readonly withGain: (pair: ColourPair, ink: number, change: number) => Lab;
}

/**
 * Effects by the sheet's own solids: an ink lets T = solid/paper through, in X, Y and Z, and covers its tone value and
 * a typical gain; inks multiply (Demichel with transmittances).
 * @returns undefined where paper or a solid was not measured.
 */
export function inkEffects(pairs: readonly ColourPair[]): InkEffects | undefined {
  const rows = primaryRows(pairs, groupsOf(pairs));
  if (rows.paper < 0 || rows.solids.some((row) => row < 0)) return undefined;
  const xyzOf = (row: number): Xyz => labToXyz(pairs[row].measured, WHITE_D50_MEASURED);
  const paper = xyzOf(rows.paper);
  const through = rows.solids.map((row) =>
    xyzOf(row).map((value, axis) => Math.min(1, Math.max(1e-3, value / paper[axis]))),
  );
  const change = (
    pair: ColourPair,
    factor: (area: number, transmittance: number) => number,
    ink: number,
  ): Lab => {
    const area = effectiveArea(pair.device[ink]);
    const own = labToXyz(pair.measured, WHITE_D50_MEASURED);
    const moved = own.map((value, axis) => value * factor(area, through[ink][axis]));
    return xyzToLab([moved[0], moved[1], moved[2]], WHITE_D50_MEASURED);
  };
  return {
    withDensity: (pair, ink, more) =>
      change(pair, (area, t) => (1 - area + area * t ** (1 + more)) / (1 - area + area * t), ink),
    withGain: (pair, ink, more) =>
      change(
        pair,
        (area, t) => {
          const moved = Math.min(1, Math.max(0, area + 4 * area * (1 - area) * more));
          return (1 - moved + moved * t) / (1 - area + area * t);
        },
        ink,
      ),
  };
}

function effectiveArea(tone: number): number {
  return tone + 4 * tone * (1 - tone) * GAIN;
}
