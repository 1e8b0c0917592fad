import type { InkPrinterData } from '../inkPrinter.ts';

/**
 * Redshank, a photo inkjet with light cyan and light magenta beside C, M, Y, K: its hidden parameters. The light inks are the
 * same pigments, thinned. Made up for this project.
 */
export const REDSHANK: InkPrinterData = {
  inks: {
    C: { bands: [[632, 55, 1.7], [694, 58, 0.82], [412, 42, 0.16], [566, 36, 0.24]], uvAbsorption: 0.55 },
    M: { bands: [[544, 36, 1.62], [512, 32, 0.84], [424, 47, 0.34], [602, 24, 0.14]], uvAbsorption: 0.6 },
    Y: { bands: [[438, 37, 1.56], [402, 36, 0.94], [482, 20, 0.32]], uvAbsorption: 0.85 },
    K: { bands: [[402, 260, 1.9], [600, 260, 1.6], [740, 120, 0.28]], uvAbsorption: 0.9 },
    LC: { bands: [[632, 55, 0.53], [694, 58, 0.26], [412, 42, 0.05], [566, 36, 0.07]], uvAbsorption: 0.3 },
    LM: { bands: [[544, 36, 0.5], [512, 32, 0.26], [424, 47, 0.11], [602, 24, 0.04]], uvAbsorption: 0.32 },
  },
  bumps: [
    [[0.24, 0.09, 0.026, 0.4], [0.62, 0.1, -0.028, -0.4]],
    [[0.33, 0.09, -0.024, 0.4], [0.7, 0.09, 0.024, -0.5]],
    [[0.2, 0.08, 0.022, -0.3], [0.54, 0.1, 0.026, 0.4]],
    [[0.3, 0.1, 0.028, 0.2], [0.7, 0.09, -0.024, 0.4]],
    [[0.28, 0.1, 0.02, -0.3], [0.66, 0.1, -0.02, 0.3]],
    [[0.26, 0.09, -0.02, 0.3], [0.6, 0.11, 0.02, -0.3]],
  ],
  trapping: [0.02, 0.04, 0.06, 0.03, 0.02, 0.02],
  bleeding: 0.06,
  gainByOthers: -0.15,
  gainSlope: [0.2, -0.18, -0.24, 0.08, 0.1, -0.1],
  variation: { sheet: 0.003, field: 0.004, drift: 0.004, autocorrelation: 0.6 },
  dryBack: 1,
  evenness: [],
  stocks: {
    'lantern-gloss-150': { gain: [0.1, 0.1, 0.09, 0.12, 0.08, 0.08], dmax: 2.55, strength: [1, 1, 1, 1, 1, 1] },
    'quay-proof-200': { gain: [0.12, 0.12, 0.1, 0.14, 0.1, 0.1], dmax: 2.3, strength: [0.98, 0.98, 0.98, 1, 0.98, 0.98] },
    'chalk-rag-310': { gain: [0.16, 0.16, 0.14, 0.19, 0.13, 0.13], dmax: 1.8, strength: [0.94, 0.94, 0.94, 0.97, 0.94, 0.94] },
  },
};

export const REDSHANK_MODES = { photo: { inkScale: [1, 1, 1, 1, 1, 1] }, fast: { inkScale: [0.9, 0.9, 0.9, 0.93, 0.92, 0.92] } } as const;
