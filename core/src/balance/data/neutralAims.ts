/**
 * Near-neutral tone aims, one family for both scales, fitted to three published near-neutral characterisations
 * (D_cmy 1.25 to 1.36, D_k 1.44 to 1.66 over paper); rms 0.003 and 0.002 in density.
 */
export const NEUTRAL_TONE_FAMILY = {
  cmy: { n1: 1.36, q: 1.19, c: [1.3311, -0.9116, 0.4115], fitted: [1.15, 1.45] },
  k: { n1: 1.66, q: 2.155, c: [0.944, -0.4472, 0.2702], fitted: [1.35, 1.75] },
} as const;

/** Below this density of a scale's 100 % patch over paper there is no verdict without a loaded aim table. */
export const LEAST_SCALE_DENSITY = 0.75;

/** The grey aim's share of the paper's a*, b* that is gone at 100 %. */
export const GREY_SUBSTRATE_SHARE = 0.85;

/** Limits used in practice for wΔL* and wΔCh: mean and largest. */
export const WEIGHTED_LIMITS = { mean: 1.5, largest: 3 } as const;
