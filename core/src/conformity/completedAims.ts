import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { MAIN_AXIS } from '../tone/mainAxis.ts';
import type { PublishedCondition, PublishedPrimary } from './publishedCondition.ts';

/** Yule-Nielsen factor; it fits the published full characterisations best, on the whole. */
const N = 1.7;
/** Black over a colour keeps this power of the colour's own transmittance. */
const UNDER_BLACK = 0.2;

/** By the bits of the inks in them: 1 is C, 2 is M, 4 is Y. */
const PRIMARIES: readonly PublishedPrimary[] = ['paper', 'C', 'M', 'CM', 'Y', 'CY', 'MY', 'CMY'];

/**
 * Completes a published condition to all CMYK values: Yule-Nielsen-Neugebauer mixing in XYZ of its sixteen primaries,
 * with ink areas that give its tone values back exactly. Overprints with black, which are not published, are black
 * over the power `UNDER_BLACK` of the colour's transmittance.
 * @param device row-major C, M, Y, K, 0..1.
 * @returns XYZ, row-major × 3, Y = 100.
 */
export function completedAims(condition: PublishedCondition, device: ArrayLike<number>): Float64Array {
  const roots = primaryRoots(condition);
  const areas = (['C', 'M', 'Y', 'K'] as const).map((ink, channel) =>
    areaOf(condition.tvi[ink], roots, channel),
  );
  const count = device.length / 4;
  const out = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) {
    const area = areas.map((of, ink) => of(device[4 * i + ink]));
    for (let primary = 0; primary < 16; primary++) {
      let weight = 1;
      for (let ink = 0; ink < 4; ink++) weight *= (primary >> ink) & 1 ? area[ink] : 1 - area[ink];
      for (let axis = 0; axis < 3; axis++) out[3 * i + axis] += weight * roots[3 * primary + axis];
    }
    for (let axis = 0; axis < 3; axis++) out[3 * i + axis] **= N;
  }
  return out;
}

/** XYZ of the sixteen primaries to the power 1/n; bit 0 is C, bit 3 is K. */
function primaryRoots({ lab }: PublishedCondition): Float64Array {
  const xyzOf = (name: PublishedPrimary): Float64Array =>
    Float64Array.from(labToXyz(lab[name], WHITE_D50_MEASURED), (value) => Math.max(value, 1e-3));
  const paper = xyzOf('paper');
  const black = xyzOf('K');
  const out = new Float64Array(48);
  PRIMARIES.forEach((name, primary) => {
    const colour = xyzOf(name);
    for (let axis = 0; axis < 3; axis++) {
      out[3 * primary + axis] = colour[axis] ** (1 / N);
      out[3 * (primary + 8) + axis] = (black[axis] * (colour[axis] / paper[axis]) ** UNDER_BLACK) ** (1 / N);
    }
  });
  return out;
}

/** Effective area for a tone value, so that Murray-Davies of the mixed colour gives the published increase. */
function areaOf(
  tvi: readonly (readonly [number, number])[],
  roots: Float64Array,
  channel: number,
): (tone: number) => number {
  const axis = MAIN_AXIS[channel];
  const paper = roots[axis];
  const solid = roots[3 * (1 << channel) + axis];
  const points = [[0, 0] as const, ...tvi, [100, 0] as const];
  return (tone) => {
    const percent = 100 * Math.min(1, Math.max(0, tone));
    let at = 1;
    while (at < points.length - 1 && points[at][0] < percent) at++;
    const [from, low] = points[at - 1];
    const [to, high] = points[at];
    const effective = (percent + low + ((high - low) * (percent - from)) / (to - from)) / 100;
    const mixed = (1 - effective) * paper ** N + effective * solid ** N;
    return (paper - mixed ** (1 / N)) / (paper - solid);
  };
}
