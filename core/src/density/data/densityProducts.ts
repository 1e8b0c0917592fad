/**
 * Spectral products for reflection density, ISO 5-3, log10 with the peak at 5.000, every 10 nm; a wavelength
 * outside a list has weight zero. D = -log10(sum(R P) / sum(P)), P = 10^log10Product.
 * Status E differs from status T in blue only. `visual` is V(lambda) times illuminant A and agrees with the
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
  1.0, 2.431, 3.431, 4.114, 4.477, 4.778, 4.914, 4.959, 5.0,
  4.881, 4.672, 4.255, 3.778, 2.903, 1.699,
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

export const VISUAL: SpectralProduct = { startNm: 380, stepNm: 10, log10Product: [
  -0.427, 0.153, 0.756, 1.321, 1.915, 2.448, 2.811, 3.091, 3.347,
  3.582, 3.818, 4.041, 4.278, 4.513, 4.703, 4.825, 4.905, 4.957,
  4.989, 5.0, 4.989, 4.956, 4.902, 4.827, 4.729, 4.593, 4.433,
  4.238, 4.012, 3.749, 3.49, 3.189, 2.901, 2.622, 2.334, 2.042,
  1.733, 1.426, 1.135, 0.843, 0.55,
] };

