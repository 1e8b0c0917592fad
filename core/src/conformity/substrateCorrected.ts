import type { Xyz } from '../colour/xyz.ts';

/**
 * Aims for another substrate by the tristimulus linear correction (ISO 13655, annex on backing; used for substrates
 * likewise): X' = X·(1 + c) − Xmin·c with c = (Xpaper − Xpaper,aim)/(Xpaper,aim − Xmin), each of X, Y, Z by itself.
 * @param aims row-major × 3, Y = 100.
 * @param least the least X, Y, Z of all aims.
 */
export function substrateCorrected(
  aims: Float64Array,
  paperAim: Xyz,
  paper: Xyz,
  least: Xyz = leastXyz(aims),
): Float64Array {
  const out = new Float64Array(aims.length);
  for (let axis = 0; axis < 3; axis++) {
    if (!(paperAim[axis] > least[axis]))
      throw new RangeError(`paper of ${paperAim[axis]} is no lighter than the darkest aim, ${least[axis]}`);
    const c = (paper[axis] - paperAim[axis]) / (paperAim[axis] - least[axis]);
    for (let i = axis; i < aims.length; i += 3) out[i] = aims[i] * (1 + c) - least[axis] * c;
  }
  return out;
}

function leastXyz(aims: Float64Array): Xyz {
  const least: [number, number, number] = [Infinity, Infinity, Infinity];
  for (let i = 0; i < aims.length; i++) least[i % 3] = Math.min(least[i % 3], aims[i]);
  return least;
}

/** A move of aims from the white they were measured on to another; XYZ, Y = 100. */
export interface PaperMove {
  readonly from: Xyz;
  readonly to: Xyz;
  /** The least X, Y, Z of the aims: what does not move. */
  readonly least: Xyz;
}

/** Colours moved with their paper; row-major × 3. */
export function movedWithPaper(xyz: Float64Array, { from, to, least }: PaperMove): Float64Array {
  return substrateCorrected(xyz, from, to, least);
}
