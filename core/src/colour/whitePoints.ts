import type { Xyz } from './xyz.ts';

/** White of measured print colours: D50, 2° observer (ISO 13655). */
export const WHITE_D50_MEASURED: Xyz = [96.422, 100, 82.521];
/** White of the ICC profile connection space, Y = 1 (ICC.1:2022, 6.3.4.3). */
export const WHITE_ICC: Xyz = [0.9642, 1, 0.8249];
/** White of sRGB: D65 by its chromaticity x = 0.3127, y = 0.3290 (IEC 61966-2-1), Y = 1. */
export const WHITE_SRGB: Xyz = [0.3127 / 0.329, 1, (1 - 0.3127 - 0.329) / 0.329];
