import { iptToLab, labToIpt, withinCones } from '../colour/ipt.ts';
import type { Lab } from '../colour/lab.ts';

const HALVINGS = 10;
/** C*ab below which a colour has no hue to speak of. */
const GREY = 3;

/**
 * What to aim at so that a colour out of gamut keeps its hue as the eye sees it. Lines of equal hue bend in Lab, blue
 * most of all: at the hue angle of a vivid blue, a blue of half its chroma is purple. In IPT they are straight.
 * @param wanted media-relative Lab.
 * @param chroma C*ab that prints in its place.
 * @returns a colour of the same L* and C*ab, at the angle that the hue of `wanted` has at that chroma.
 */
export function steadyHue(wanted: Lab, chroma: number): Lab {
  const own = Math.hypot(wanted[1], wanted[2]);
  if (chroma >= own || own < GREY) return wanted;
  const [i, p, t] = labToIpt(withinCones(wanted));
  let [low, high] = [0, 1];
  let found: Lab = wanted;
  for (let step = 0; step < HALVINGS; step++) {
    const share = (low + high) / 2;
    found = iptToLab([i, share * p, share * t]);
    if (Math.hypot(found[1], found[2]) < chroma) low = share;
    else high = share;
  }
  const there = Math.hypot(found[1], found[2]);
  if (!(there > 0)) return wanted;
  return [wanted[0], (own * found[1]) / there, (own * found[2]) / there];
}
