import type { InkPrinterData } from '../inkPrinter.ts';

/** Heron, the sheet-fed toner press (CMYK): its hidden parameters. Made up for this project. */
export const HERON: InkPrinterData = {
  inks: {
    C: { bands: [[632, 56, 1.42], [692, 58, 0.82], [415, 44, 0.17], [572, 34, 0.16]], uvAbsorption: 0.5 },
    M: { bands: [[546, 37, 1.42], [514, 33, 0.84], [424, 48, 0.4], [598, 25, 0.18]], uvAbsorption: 0.6 },
    Y: { bands: [[434, 37, 1.3], [400, 38, 0.86], [480, 21, 0.33]], uvAbsorption: 0.8 },
    K: { bands: [[410, 250, 1.36], [600, 250, 1.18], [735, 120, 0.2]], uvAbsorption: 0.9 },
  },
  bumps: [
    [[0.24, 0.1, 0.034, 0.4], [0.62, 0.1, -0.032, -0.4]],
    [[0.36, 0.1, -0.03, 0.4], [0.72, 0.09, 0.028, -0.5]],
    [[0.2, 0.09, 0.026, -0.3], [0.52, 0.11, 0.032, 0.4]],
    [[0.32, 0.1, 0.034, 0.2], [0.7, 0.09, -0.028, 0.4]],
  ],
  trapping: [0.02, 0.06, 0.09, 0.05],
  bleeding: 0.06,
  gainByOthers: -0.18,
  gainSlope: [0.25, -0.2, -0.25, 0.08],
  variation: { sheet: 0.004, field: 0.005, drift: 0.006, autocorrelation: 0.7 },
  dryBack: 0.25,
  // Toner lies thinner at one edge and where the developer runs out.
  evenness: [
    { tilt: 0.12, bow: -0.34, zones: [] },
    { tilt: -0.08, bow: -0.42, zones: [] },
    { tilt: 0.05, bow: -0.3, zones: [] },
    { tilt: 0.1, bow: -0.36, zones: [] },
  ],
  stocks: {
    'fenland-smooth-120': { gain: [0.15, 0.16, 0.14, 0.17], dmax: 1.5, strength: [0.82, 0.82, 0.86, 1] },
    'lantern-gloss-150': { gain: [0.13, 0.14, 0.12, 0.16], dmax: 2.1, strength: [0.9, 0.9, 0.94, 1.14] },
    'marsh-silk-130': { gain: [0.14, 0.14, 0.13, 0.16], dmax: 1.95, strength: [0.89, 0.89, 0.93, 1.12] },
  },
};

export const HERON_MODES = { standard: { inkScale: [1, 1, 1, 1] }, saver: { inkScale: [0.9, 0.88, 0.9, 0.94] } } as const;
