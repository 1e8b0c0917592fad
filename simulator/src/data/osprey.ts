import type { InkPrinterData } from '../inkPrinter.ts';

/** Osprey, the four-unit offset press with twelve ink zones (CMYK): its hidden parameters. Made up for this project. */
export const OSPREY: InkPrinterData = {
  inks: {
    C: { bands: [[628, 58, 1.3], [690, 60, 0.86], [412, 42, 0.15], [572, 36, 0.14]], uvAbsorption: 0.5 },
    M: { bands: [[544, 36, 1.28], [516, 32, 0.82], [425, 50, 0.46], [597, 24, 0.14]], uvAbsorption: 0.6 },
    Y: { bands: [[438, 38, 1.16], [400, 40, 0.86], [482, 21, 0.4]], uvAbsorption: 0.8 },
    K: { bands: [[415, 250, 1.22], [600, 255, 1.12], [735, 120, 0.16]], uvAbsorption: 0.9 },
  },
  bumps: [
    [[0.3, 0.14, 0.016, 0.3], [0.7, 0.12, -0.014, -0.3]],
    [[0.4, 0.14, -0.014, 0.3], [0.75, 0.1, 0.012, -0.4]],
    [[0.25, 0.12, 0.012, -0.3], [0.6, 0.13, 0.014, 0.3]],
    [[0.35, 0.13, 0.016, 0.2], [0.72, 0.1, -0.012, 0.3]],
  ],
  trapping: [0.03, 0.08, 0.07, 0.05],
  bleeding: 0.04,
  gainByOthers: -0.12,
  gainSlope: [0.15, -0.12, -0.15, 0.05],
  variation: { sheet: 0.006, field: 0.004, drift: 0.008, autocorrelation: 0.85 },
  dryBack: 1,
  // Zone keys that were set by eye.
  evenness: [
    { tilt: 0.01, bow: 0, zones: [0.066, 0.022, -0.044, -0.077, 0.0, 0.044, 0.055, 0.0, -0.066, -0.022, 0.033, -0.044] },
    { tilt: -0.015, bow: 0, zones: [-0.044, -0.066, 0.022, 0.066, 0.066, 0.0, -0.055, -0.044, 0.022, 0.077, 0.022, -0.044] },
    { tilt: 0, bow: 0, zones: [0.033, 0.044, 0.066, 0.0, -0.044, -0.066, 0.0, 0.055, 0.044, -0.033, -0.066, 0.0] },
    { tilt: 0.012, bow: 0, zones: [-0.066, 0.0, 0.044, 0.055, -0.022, -0.066, 0.022, 0.066, 0.0, -0.044, 0.044, 0.022] },
  ],
  stocks: {
    'fenland-smooth-120': { gain: [0.19, 0.19, 0.18, 0.21], dmax: 1.4, strength: [0.8, 0.8, 0.84, 0.96] },
    'lantern-gloss-150': { gain: [0.14, 0.145, 0.13, 0.17], dmax: 2.2, strength: [0.97, 0.94, 0.96, 1.18] },
    'marsh-silk-130': { gain: [0.15, 0.155, 0.145, 0.18], dmax: 2, strength: [0.96, 0.94, 0.96, 1.16] },
  },
};

export const OSPREY_MODES = { '175 lpi': { inkScale: [1, 1, 1, 1] } } as const;
