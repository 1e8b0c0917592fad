import type { InkPrinterData } from '../inkPrinter.ts';

/** Curlew, the packaging press with orange, green and violet beside C, M, Y, K: its hidden parameters. Made up for this project. */
export const CURLEW: InkPrinterData = {
  inks: {
    C: { bands: [[630, 57, 1.42], [692, 60, 0.84], [412, 43, 0.15], [570, 36, 0.16]], uvAbsorption: 0.5 },
    M: { bands: [[545, 36, 1.4], [515, 33, 0.84], [424, 49, 0.42], [598, 24, 0.15]], uvAbsorption: 0.6 },
    Y: { bands: [[437, 38, 1.28], [400, 39, 0.88], [482, 21, 0.36]], uvAbsorption: 0.8 },
    K: { bands: [[412, 250, 1.34], [600, 255, 1.18], [735, 120, 0.18]], uvAbsorption: 0.9 },
    O: { bands: [[455, 54, 1.42], [515, 30, 1.1], [400, 40, 0.8], [548, 16, 0.36]], uvAbsorption: 0.8 },
    G: { bands: [[648, 54, 1.4], [700, 58, 0.82], [430, 38, 1.08], [392, 34, 0.8], [600, 25, 0.34]], uvAbsorption: 0.8 },
    V: { bands: [[580, 46, 1.46], [545, 38, 0.7], [622, 30, 0.7], [400, 30, 0.2]], uvAbsorption: 0.6 },
  },
  bumps: [
    [[0.3, 0.13, 0.018, 0.3], [0.68, 0.12, -0.016, -0.3]],
    [[0.4, 0.13, -0.016, 0.3], [0.74, 0.1, 0.014, -0.4]],
    [[0.25, 0.12, 0.014, -0.3], [0.6, 0.13, 0.016, 0.3]],
    [[0.35, 0.13, 0.018, 0.2], [0.72, 0.1, -0.014, 0.3]],
    [[0.28, 0.12, 0.016, 0.3], [0.66, 0.12, -0.012, -0.3]],
    [[0.33, 0.12, -0.014, 0.3], [0.7, 0.12, 0.014, -0.3]],
    [[0.26, 0.12, 0.014, 0.2], [0.62, 0.12, -0.016, 0.3]],
  ],
  trapping: [0.02, 0.05, 0.06, 0.04, 0.05, 0.05, 0.05],
  bleeding: 0.05,
  gainByOthers: -0.14,
  gainSlope: [0.18, -0.14, -0.18, 0.05, -0.14, 0.1, 0.08],
  variation: { sheet: 0.005, field: 0.004, drift: 0.006, autocorrelation: 0.8 },
  dryBack: 1,
  evenness: [],
  stocks: {
    'lantern-gloss-150': { gain: [0.14, 0.145, 0.13, 0.17, 0.14, 0.14, 0.14], dmax: 2.2, strength: [1, 0.98, 1, 1.14, 1, 1, 1] },
    'marsh-silk-130': { gain: [0.15, 0.155, 0.145, 0.18, 0.15, 0.15, 0.15], dmax: 2, strength: [0.98, 0.96, 0.98, 1.12, 0.98, 0.98, 0.98] },
  },
};

export const CURLEW_MODES = { '150 lpi': { inkScale: [1, 1, 1, 1, 1, 1, 1] } } as const;
