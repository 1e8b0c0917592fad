import { deltaEAb } from '../colour/deltaEAb.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { sctvDistance } from './sctv.ts';

/** What a linearisation makes even: SCTV (ISO 20654), density over paper, ΔE*ab from paper, or area for a TVI aim. */
export type ToneMeasure = 'sctv' | 'density' | 'delta-e' | 'tvi';

export const TONE_MEASURES: readonly ToneMeasure[] = ['sctv', 'density', 'delta-e', 'tvi'];

export const PROCESS_INKS: readonly string[] = ['C', 'M', 'Y', 'K'];

/** What can be made even of some inks: TVI aims are agreed for C, M, Y and K alone. */
export function measuresFor(inks: readonly string[]): readonly ToneMeasure[] {
  return inks.every((ink) => PROCESS_INKS.includes(ink))
    ? TONE_MEASURES
    : TONE_MEASURES.filter((measure) => measure !== 'tvi');
}

/**
 * Colorimetric signal of an ink for its area: cyan from X − 0.55·Z (X alone reads one to four per cent too low),
 * magenta and black from Y, yellow from Z. It falls along a ramp and may be negative.
 */
export function inkSignal(ink: string, xyz: ArrayLike<number>, at = 0): number {
  if (ink === 'C') return xyz[at] - 0.55 * xyz[at + 2];
  if (ink === 'Y') return xyz[at + 2];
  if (ink !== 'M' && ink !== 'K') throw new RangeError(`no colorimetric area is agreed for ${ink}`);
  return xyz[at + 1];
}

/** One patch of a ramp: XYZ (Y = 100) and the density over paper by its ink's filter. */
export interface TonePatch {
  readonly xyz: ArrayLike<number>;
  readonly density: number;
}

/**
 * A quantity that is zero on paper and grows with tone; a tone value by this measure is its share of the solid's.
 * For `tvi` that share is the Murray-Davies area.
 */
export function toneQuantity(
  measure: ToneMeasure,
  ink: string,
  { xyz, density }: TonePatch,
  paper: ArrayLike<number>,
): number {
  switch (measure) {
    case 'sctv':
      return sctvDistance(xyz, 0, paper);
    case 'density':
      return density;
    case 'tvi':
      return inkSignal(ink, paper) - inkSignal(ink, xyz);
    case 'delta-e':
      return deltaEAb(
        xyzToLab([xyz[0], xyz[1], xyz[2]], WHITE_D50_MEASURED),
        xyzToLab([paper[0], paper[1], paper[2]], WHITE_D50_MEASURED),
      );
  }
}
