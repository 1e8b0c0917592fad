import type { Xyz } from '../colour/xyz.ts';

/**
 * Aims for another substrate by the tristimulus linear correction (ISO 13655, annex on backing; used for substrates
 * likewise): X' = X·(1 + c) − Xmin·c with c = (Xpaper − Xpaper,aim)/(Xpaper,aim − Xmin), each of X, Y, Z by itself.
 * @param aims row-major × 3, Y = 100; Xmin is the least of all.
 */
export function substrateCorrected(aims: Float64Array, paperAim: Xyz, paper: Xyz): Float64Array {
  const out = new Float64Array(aims.length);
  for (let axis = 0; axis < 3; axis++) {
    let least = Infinity;
    for (let i = axis; i < aims.length; i += 3) least = Math.min(least, aims[i]);
    if (!(paperAim[axis] > least))
      throw new RangeError(`paper of ${paperAim[axis]} is no lighter than the darkest aim, ${least}`);
    const c = (paper[axis] - paperAim[axis]) / (paperAim[axis] - least);
    for (let i = axis; i < aims.length; i += 3) out[i] = aims[i] * (1 + c) - least * c;
  }
  return out;
}
