/** One tint of a spot ink as a layer: what it throws back itself and what it lets through twice, by band. */
export interface SpotLayer {
  readonly tint: number;
  readonly own: Float64Array;
  readonly through: Float64Array;
}

/** A spot ink by its tints, from none to full (CxF/X-4 calls this its characterisation on white and black). */
export type SpotFingerprint = readonly SpotLayer[];

/** A tint as it was read on bare stock and on a dark ground. */
export interface ReadTint {
  readonly tint: number;
  readonly onWhite: ArrayLike<number>;
  readonly onBlack: ArrayLike<number>;
}

const ROUNDS = 12;

/**
 * Takes a spot ink's tints apart into layers: R = S + T·g/(1 − S·g) over a ground g (after Kubelka's formula for a layer
 * over a background, Journal of the Optical Society of America 38, 1948), solved from the two grounds in each band.
 * @param white reflectance factors of the bare stock, @param black of the dark ground without the ink.
 * @throws RangeError where there is no full tint, or the grounds are alike.
 */
export function spotFingerprint(
  tints: readonly ReadTint[],
  white: ArrayLike<number>,
  black: ArrayLike<number>,
): SpotFingerprint {
  const bands = white.length;
  let apart = 0;
  for (let band = 0; band < bands; band++) apart += white[band] - black[band];
  if (!(apart / bands > 0.2)) throw new RangeError('the dark ground is hardly darker than the stock');
  const sorted = [...tints].sort((one, other) => one.tint - other.tint);
  if (sorted.length < 3 || sorted[sorted.length - 1].tint < 0.999)
    throw new RangeError('too few tints: three at least, the full one among them');
  const none: SpotLayer = {
    tint: 0,
    own: new Float64Array(bands),
    through: new Float64Array(bands).fill(1),
  };
  return [none, ...sorted.filter(({ tint }) => tint > 0).map((read) => layerOf(read, white, black))];
}

function layerOf(
  { tint, onWhite, onBlack }: ReadTint,
  white: ArrayLike<number>,
  black: ArrayLike<number>,
): SpotLayer {
  const bands = white.length;
  const own = new Float64Array(bands);
  const through = new Float64Array(bands);
  for (let band = 0; band < bands; band++) {
    const [w, b] = [white[band], black[band]];
    let s = 0;
    let t = 0;
    for (let round = 0; round < ROUNDS; round++) {
      const [seenW, seenB] = [w / (1 - s * w), b / (1 - s * b)];
      t = Math.max(0, (onWhite[band] - onBlack[band]) / Math.max(1e-6, seenW - seenB));
      s = Math.min(0.95, Math.max(0, onBlack[band] - t * seenB));
    }
    own[band] = s;
    through[band] = t;
  }
  return { tint, own, through };
}

/** Reflectance factors of a tint of the spot ink over a ground, by band. */
export function spotOver(
  fingerprint: SpotFingerprint,
  tint: number,
  ground: ArrayLike<number>,
): Float64Array {
  const last = fingerprint.length - 1;
  let high = fingerprint.findIndex((layer) => layer.tint >= tint);
  if (high < 0) high = last;
  const low = Math.max(0, high - 1);
  const [a, b] = [fingerprint[low], fingerprint[high]];
  const share = b.tint > a.tint ? Math.min(1, Math.max(0, (tint - a.tint) / (b.tint - a.tint))) : 0;
  return Float64Array.from({ length: ground.length }, (_, band) => {
    const g = ground[band];
    const over = ({ own, through }: SpotLayer): number =>
      own[band] + (through[band] * g) / (1 - own[band] * g);
    return over(a) + share * (over(b) - over(a));
  });
}
