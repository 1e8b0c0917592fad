import type { InkPrinterData } from '../inkPrinter.ts';

/** Tern, the wide-format inkjet with orange and green beside C, M, Y, K: its hidden parameters. Made up for this project. */
export const TERN: InkPrinterData = {
  inks: {
    C: { bands: [[636, 57, 1.66], [698, 60, 0.8], [408, 44, 0.17], [562, 38, 0.26]], uvAbsorption: 0.55 },
    M: { bands: [[546, 37, 1.58], [513, 33, 0.86], [421, 49, 0.36], [600, 25, 0.15]], uvAbsorption: 0.6 },
    Y: { bands: [[436, 38, 1.54], [400, 37, 0.96], [481, 20, 0.33]], uvAbsorption: 0.85 },
    K: { bands: [[402, 260, 1.84], [600, 260, 1.56], [740, 120, 0.26]], uvAbsorption: 0.9 },
    O: { bands: [[452, 52, 1.7], [512, 30, 1.32], [400, 40, 0.9], [545, 17, 0.5]], uvAbsorption: 0.8 },
    G: { bands: [[650, 52, 1.66], [702, 58, 0.9], [428, 36, 1.28], [392, 34, 0.9], [598, 26, 0.42]], uvAbsorption: 0.8 },
  },
  bumps: [
    [[0.22, 0.09, 0.03, 0.4], [0.6, 0.1, -0.03, -0.4]],
    [[0.34, 0.09, -0.028, 0.4], [0.71, 0.09, 0.026, -0.5]],
    [[0.19, 0.08, 0.024, -0.3], [0.52, 0.1, 0.03, 0.4]],
    [[0.31, 0.1, 0.032, 0.2], [0.71, 0.09, -0.026, 0.4]],
    [[0.27, 0.1, 0.026, -0.3], [0.64, 0.1, -0.024, 0.3]],
    [[0.24, 0.09, -0.022, 0.3], [0.58, 0.11, 0.026, -0.3]],
  ],
  trapping: [0.02, 0.05, 0.07, 0.04, 0.05, 0.05],
  bleeding: 0.07,
  gainByOthers: -0.18,
  gainSlope: [0.25, -0.22, -0.28, 0.08, -0.2, 0.15],
  variation: { sheet: 0.004, field: 0.005, drift: 0.005, autocorrelation: 0.6 },
  dryBack: 1,
  evenness: [],
  stocks: {
    'quay-proof-200': { gain: [0.12, 0.13, 0.11, 0.15, 0.12, 0.13], dmax: 2.25, strength: [1, 1, 1, 1, 1, 1] },
    'lantern-gloss-150': { gain: [0.1, 0.11, 0.09, 0.12, 0.1, 0.11], dmax: 2.6, strength: [1.02, 1.02, 1.02, 1.04, 1.02, 1.02] },
    'chalk-rag-310': { gain: [0.17, 0.16, 0.15, 0.2, 0.16, 0.17], dmax: 1.75, strength: [0.94, 0.94, 0.94, 0.98, 0.94, 0.94] },
  },
};

export const TERN_MODES = { fine: { inkScale: [1, 1, 1, 1, 1, 1] }, fast: { inkScale: [0.9, 0.88, 0.9, 0.94, 0.9, 0.9] } } as const;
