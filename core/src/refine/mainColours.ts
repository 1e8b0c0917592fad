import { createRandom } from '../numerics/random.ts';
import { labToLch } from '../colour/labToLch.ts';
import type { Lab } from '../colour/lab.ts';
import { srgbToLab } from '../colour/srgb.ts';
import { pictureColours } from '../proof/pictureColours.ts';

/** A colour of a picture with the share of its area, 0..1. */
export interface PictureColour {
  readonly lab: Lab;
  readonly share: number;
}

const BITS = 5;
const ROUNDS = 12;
/** Eyes forgive skin and greys least: they count as so many times their area. */
const CARE = { skin: 3, grey: 2 } as const;

/** Colours of a picture of sRGB by area: pixels counted on a grid of 32 levels a channel, most frequent first. */
export function pictureHistogram(rgba: ArrayLike<number>, most = 4000): PictureColour[] {
  const seen: number[] = [];
  for (let i = 0; i + 3 < rgba.length; i += 4)
    if (rgba[i + 3] >= 128) seen.push(rgba[i], rgba[i + 1], rgba[i + 2]);
  const { values, shares } = pictureColours(seen, 3, most, BITS);
  return Array.from(shares, (share, i) => ({
    lab: srgbToLab([values[3 * i], values[3 * i + 1], values[3 * i + 2]]),
    share,
  }));
}

/**
 * The main colours of a picture: weighted k-means over its histogram in Lab, with care for skin and greys.
 * Shares are of the area that each colour stands for; largest first.
 */
export function mainColours(histogram: readonly PictureColour[], count: number, seed = 1): PictureColour[] {
  if (histogram.length <= count) return [...histogram];
  const weights = histogram.map(({ lab, share }) => share * careFor(lab));
  const random = createRandom(seed);
  const centres: Lab[] = [histogram[weights.indexOf(Math.max(...weights))].lab];
  const nearest = new Float64Array(histogram.length).fill(Infinity);
  // Far and frequent colours are drawn first (k-means++).
  while (centres.length < count) {
    const last = centres[centres.length - 1];
    let total = 0;
    histogram.forEach(({ lab }, i) => {
      nearest[i] = Math.min(nearest[i], squared(lab, last));
      total += weights[i] * nearest[i];
    });
    let left = random.uniform() * total;
    let at = 0;
    while (at < histogram.length - 1 && (left -= weights[at] * nearest[at]) > 0) at++;
    centres.push(histogram[at].lab);
  }
  const own = new Int32Array(histogram.length);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    histogram.forEach(({ lab }, i) => {
      let best = Infinity;
      centres.forEach((centre, k) => {
        const d = squared(lab, centre);
        if (d < best) {
          best = d;
          own[i] = k;
        }
      });
      for (let c = 0; c < 3; c++) sums[own[i]][c] += weights[i] * lab[c];
      sums[own[i]][3] += weights[i];
    });
    sums.forEach(([l, a, b, w], k) => {
      if (w > 0) centres[k] = [l / w, a / w, b / w];
    });
  }
  const shares = centres.map(() => 0);
  histogram.forEach(({ share }, i) => (shares[own[i]] += share));
  return centres
    .map((lab, k) => ({ lab, share: shares[k] }))
    .filter(({ share }) => share > 0)
    .sort((a, b) => b.share - a.share);
}

function careFor(lab: Lab): number {
  const [lightness, chroma, hue] = labToLch(lab);
  if (chroma < 6) return CARE.grey;
  return lightness > 30 && lightness < 88 && chroma > 10 && chroma < 45 && hue > 25 && hue < 80
    ? CARE.skin
    : 1;
}

function squared(a: Lab, b: Lab): number {
  return (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;
}
