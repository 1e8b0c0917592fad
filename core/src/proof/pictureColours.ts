/** Colours of a picture by area. */
export interface PictureColours {
  /** Values of each, 0..1, row-major × channels. */
  readonly values: Float64Array;
  /** Its share of the picture, the largest first. */
  readonly shares: Float64Array;
}

/**
 * The colours that cover most of a picture: pixels of one cell of a grid over their values are one colour, their mean.
 * @param pixels 0 to 255, row-major × channels.
 * @param bits of each channel in which cells are told apart.
 */
export function pictureColours(
  pixels: ArrayLike<number>,
  channels: number,
  most: number,
  bits = 4,
): PictureColours {
  const count = Math.floor(pixels.length / channels);
  const cells = new Map<number, { pixels: number; sum: number[] }>();
  for (let pixel = 0; pixel < count; pixel++) {
    const from = pixel * channels;
    let key = 0;
    for (let c = 0; c < channels; c++) key = key * (1 << bits) + (pixels[from + c] >> (8 - bits));
    let cell = cells.get(key);
    if (cell === undefined) cells.set(key, (cell = { pixels: 0, sum: new Array<number>(channels).fill(0) }));
    cell.pixels++;
    for (let c = 0; c < channels; c++) cell.sum[c] += pixels[from + c];
  }
  const kept = [...cells.values()].sort((a, b) => b.pixels - a.pixels).slice(0, most);
  return {
    values: Float64Array.from(kept.flatMap(({ pixels: own, sum }) => sum.map((value) => value / own / 255))),
    shares: Float64Array.from(kept, ({ pixels: own }) => own / count),
  };
}
