/**
 * Spectral shapes of the simulated inks: density of the solid on a reference stock as a sum of Gaussian bands,
 * [peak nm, width nm, density]. Made up for this project.
 */
export type InkBands = readonly (readonly [peakNm: number, widthNm: number, density: number])[];

export interface InkShape {
  readonly bands: InkBands;
  /** Share of ultraviolet light that a solid swallows. */
  readonly uvAbsorption: number;
}

export const PIGMENT_INKS = {
  C: { bands: [[638, 58, 1.62], [700, 60, 0.75], [410, 45, 0.16], [560, 40, 0.3]], uvAbsorption: 0.55 },
  M: { bands: [[548, 38, 1.55], [512, 34, 0.85], [420, 50, 0.34], [600, 26, 0.16]], uvAbsorption: 0.6 },
  Y: { bands: [[436, 38, 1.5], [400, 36, 0.95], [482, 20, 0.34]], uvAbsorption: 0.85 },
  K: { bands: [[400, 260, 1.8], [600, 260, 1.5], [740, 120, 0.25]], uvAbsorption: 0.9 },
} as const satisfies Record<string, InkShape>;
