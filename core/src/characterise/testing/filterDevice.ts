/** What C, M, Y, K take of red, green and blue light where they are full. */
const TAKES = [
  [0.92, 0.35, 0.12],
  [0.2, 0.93, 0.35],
  [0.04, 0.12, 0.9],
  [0.96, 0.96, 0.96],
] as const;
const TO_XYZ = [
  [43.6, 38.5, 14.3],
  [22.2, 71.7, 6.1],
  [1.4, 9.7, 71.4],
] as const;

/** XYZ (Y = 100) of the bare stock. */
export const FILTER_PAPER: readonly [number, number, number] = [96.4, 100, 82.5];

/**
 * XYZ of a made-up device whose inks lie over each other as filters do.
 * @param cmyk row-major × 4.
 * @param area what a device value covers, by ink.
 * @param lightOf what becomes of the light that passes all filters, by the row's device values.
 */
export function filterDevice(
  cmyk: ArrayLike<number>,
  area: (value: number, ink: number) => number = (value) => value,
  lightOf: (light: number, inks: readonly number[]) => number = (light) => light,
): Float64Array {
  const xyz = new Float64Array((cmyk.length / 4) * 3);
  for (let row = 0; row * 4 < cmyk.length; row++) {
    const inks = [0, 1, 2, 3].map((ink) => cmyk[4 * row + ink]);
    const light = [0, 1, 2].map((band) =>
      lightOf(
        TAKES.reduce((rest, takes, ink) => rest * (1 - takes[band] * area(inks[ink], ink)), 1),
        inks,
      ),
    );
    TO_XYZ.forEach((w, axis) => {
      xyz[3 * row + axis] = w[0] * light[0] + w[1] * light[1] + w[2] * light[2];
    });
  }
  return xyz;
}
