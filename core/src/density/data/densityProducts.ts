/**
 * Spectral products for reflection density, ISO 5-3, log10 with the peak at 5.000, every 10 nm; a wavelength
 * outside a list has weight zero. D = -log10(sum(R P) / sum(P)), P = 10^log10Product.
 * Status E differs from status T in blue only: a narrower filter with its peak at 440 nm
 * (docs/decisions/0027-blue-of-status-e.md). `visual` is V(lambda) times illuminant A and agrees with the
 * standard's own list to 0.002. The T and E lists were entered without a copy of the standard at hand and are
 * unchecked against it: prefer densities that the instrument reports.
 */
export interface SpectralProduct {
  readonly startNm: number;
  readonly stepNm: number;
  readonly log10Product: readonly number[];
}

export const STATUS_T = {
blue: { startNm: 340, stepNm: 10, log10Product: [
  0.699, 1.0, 1.301, 2.0, 2.477, 3.176, 3.778, 4.23, 4.602,
  4.778, 4.914, 4.973, 5.0, 4.987, 4.929, 4.813, 4.602, 4.255,
  3.699, 2.301, 1.602,
] },
green: { startNm: 480, stepNm: 10, log10Product: [
  3.0, 3.699, 4.447, 4.833, 4.964, 5.0, 4.944, 4.82, 4.623,
  4.342, 3.954, 3.398, 2.845, 1.954, 1.0,
] },
red: { startNm: 570, stepNm: 10, log10Product: [
  1.778, 2.653, 4.477, 5.0, 4.929, 4.74, 4.398, 4.0, 3.699,
  3.176, 2.699, 2.477, 2.176, 1.699, 1.0,
] },
} as const;

export const STATUS_E = {
blue: { startNm: 380, stepNm: 10, log10Product: [
  2.431, 3.431, 4.114, 4.477, 4.778, 4.914, 5.0, 4.959, 4.881,
  4.672, 4.255, 3.778, 2.903, 1.699,
] },
green: { startNm: 480, stepNm: 10, log10Product: [
  3.0, 3.699, 4.447, 4.833, 4.964, 5.0, 4.944, 4.82, 4.623,
  4.342, 3.954, 3.398, 2.845, 1.954, 1.0,
] },
red: { startNm: 570, stepNm: 10, log10Product: [
  1.778, 2.653, 4.477, 5.0, 4.929, 4.74, 4.398, 4.0, 3.699,
  3.176, 2.699, 2.477, 2.176, 1.699, 1.0,
] },
} as const;

/** Peaks at 440, 530 and 620 nm; entered without a copy of the standard at hand, as the two above. */
export const STATUS_A = {
blue: { startNm: 420, stepNm: 10, log10Product: [
  3.602, 4.819, 5.0, 4.912, 4.62, 4.04, 2.989, 1.566, 0.165,
] },
green: { startNm: 500, stepNm: 10, log10Product: [
  1.65, 3.822, 4.782, 5.0, 4.906, 4.644, 4.221, 3.609, 2.766, 1.579,
] },
red: { startNm: 600, stepNm: 10, log10Product: [
  2.568, 4.638, 5.0, 4.871, 4.604, 4.286, 3.9, 3.551, 3.165,
  2.776, 2.383, 1.97, 1.551, 1.141, 0.741, 0.341,
] },
} as const;

/** A band of 20 nm at half its height, as a triangle every 5 nm. */
const narrowBand = (peakNm: number): SpectralProduct => ({
  startNm: peakNm - 15,
  stepNm: 5,
  log10Product: [0.25, 0.5, 0.75, 1, 0.75, 0.5, 0.25].map((share) => 5 + Math.log10(share)),
});

/** Defined by its bands: 20 nm wide, at 430, 535 and 625 nm. */
export const STATUS_I = {
  blue: narrowBand(430),
  green: narrowBand(535),
  red: narrowBand(625),
} as const;

export const VISUAL: SpectralProduct = { startNm: 380, stepNm: 10, log10Product: [
  -0.427, 0.153, 0.756, 1.321, 1.915, 2.448, 2.811, 3.091, 3.347,
  3.582, 3.818, 4.041, 4.278, 4.513, 4.703, 4.825, 4.905, 4.957,
  4.989, 5.0, 4.989, 4.956, 4.902, 4.827, 4.729, 4.593, 4.433,
  4.238, 4.012, 3.749, 3.49, 3.189, 2.901, 2.622, 2.334, 2.042,
  1.733, 1.426, 1.135, 0.843, 0.55,
] };

