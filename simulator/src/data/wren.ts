/** Wren, the pigment inkjet with an RGB driver: its hidden parameters. Made up for this project. */
export const WREN = {
  /** Exponents that the driver applies to R, G, B before its split. */
  tone: [0.86, 0.92, 0.81],
  /** Ink taken over by a neighbour: rows are the inks C, M, Y, columns the complements of R, G, B. */
  crossTalk: [0.97, 0.05, -0.02, 0.08, 0.9, 0.04, -0.03, 0.1, 0.93],
  /** Black generation: start, exponent, maximum, and the share of grey it replaces. */
  black: { start: 0.22, exponent: 1.35, most: 0.96, replaced: 0.7 },
  modes: {
    fine: { totalInk: 2.65, inkScale: [0.98, 0.95, 0.97, 1] },
    fast: { totalInk: 2.2, inkScale: [0.88, 0.86, 0.88, 0.94] },
  },
  /** Bumps of the tone curves by ink: [centre, width, size, change of size from 380 to 730 nm]. */
  bumps: [
    [[0.21, 0.08, 0.042, 0.6], [0.58, 0.09, -0.046, -0.5]],
    [[0.33, 0.08, -0.04, 0.4], [0.7, 0.08, 0.036, -0.7]],
    [[0.18, 0.07, 0.034, -0.4], [0.5, 0.1, 0.04, 0.5]],
    [[0.3, 0.09, 0.044, 0.3], [0.72, 0.08, -0.036, 0.6]],
  ],
  /** Loss of an ink's effect where others lie under it, and the spread where much ink lies. */
  trapping: [0.03, 0.09, 0.12, 0.05],
  bleeding: 0.1,
  /** Change of gain where other inks are present. */
  gainByOthers: -0.22,
  /** Tone value increase varies along the spectrum by this share from 380 to 730 nm. */
  gainSlope: [0.35, -0.3, -0.4, 0.1],
  variation: { sheet: 0.004, field: 0.006, drift: 0.005, autocorrelation: 0.6 },
} as const;
