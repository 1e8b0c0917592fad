/** A simulated stock. Made up for this project. */
export interface SimulatedStock {
  readonly id: string;
  readonly name: string;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  /** Reflectance factor under M2 at 380, 430, 550 and 730 nm; smooth between. */
  readonly base: readonly [number, number, number, number];
  /** Peak of the brightener's emission under M1, as reflectance factor. */
  readonly brightener: number;
  /** Largest density that inks reach on it, on its printing side and on the back. */
  readonly dmax: number;
  readonly dmaxWrongSide: number;
  /** Surface reflection that no ink covers, without and with polarisation removed. */
  readonly surface: number;
  /** Yule-Nielsen factor. */
  readonly n: number;
  /** Tone value increase at 50 % by ink C, M, Y, K. */
  readonly gain: readonly [number, number, number, number];
  /** Time constant of dry-back in minutes and its size as a share of ink density. */
  readonly dryMinutes: number;
  readonly dryBack: number;
}

export const SIMULATED_STOCKS = {
  'quay-proof-200': { id: 'quay-proof-200', name: 'Quay Proof 200', finish: 'semi-matt', base: [0.74, 0.885, 0.905, 0.91], brightener: 0.035, dmax: 2.3, dmaxWrongSide: 1.12, surface: 0.0035, n: 1.75, gain: [0.12, 0.13, 0.11, 0.15], dryMinutes: 14, dryBack: 0.05 },
  'chalk-rag-310': { id: 'chalk-rag-310', name: 'Chalk Rag 310', finish: 'matt', base: [0.7, 0.82, 0.885, 0.9], brightener: 0, dmax: 1.78, dmaxWrongSide: 1.05, surface: 0.009, n: 2.1, gain: [0.17, 0.16, 0.15, 0.2], dryMinutes: 22, dryBack: 0.06 },
  'lantern-gloss-150': { id: 'lantern-gloss-150', name: 'Lantern Gloss 150', finish: 'gloss', base: [0.76, 0.88, 0.9, 0.915], brightener: 0.06, dmax: 2.7, dmaxWrongSide: 1.15, surface: 0.0022, n: 1.62, gain: [0.1, 0.11, 0.09, 0.12], dryMinutes: 9, dryBack: 0.045 },
  'fenland-smooth-120': { id: 'fenland-smooth-120', name: 'Fenland Smooth 120', finish: 'matt', base: [0.66, 0.85, 0.88, 0.89], brightener: 0.11, dmax: 1.5, dmaxWrongSide: 1.2, surface: 0.011, n: 2, gain: [0.18, 0.18, 0.17, 0.2], dryMinutes: 18, dryBack: 0.05 },
  'marsh-silk-130': { id: 'marsh-silk-130', name: 'Marsh Silk 130', finish: 'semi-matt', base: [0.72, 0.87, 0.89, 0.905], brightener: 0.07, dmax: 2.2, dmaxWrongSide: 1.3, surface: 0.0045, n: 1.75, gain: [0.13, 0.14, 0.12, 0.15], dryMinutes: 12, dryBack: 0.04 },
} as const satisfies Record<string, SimulatedStock>;

export type SimulatedStockId = keyof typeof SIMULATED_STOCKS;
