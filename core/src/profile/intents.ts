import type { Xyz } from '../colour/xyz.ts';

/**
 * Perceptual black of version 2. The standard leaves it open; Melto ends the scale at zero, so that a picture's
 * black is the device's black whether or not the colour engine compensates the black point.
 */
export const VERSION_2_BLACK: Xyz = [0, 0, 0];
/** Share of the gamut that keeps its place, by intent. */
export const KNEE = { perceptual: 0.78, saturation: 0.9 } as const;
/** ΔE*ab that counts as full scale of the `gamt` tag; its first step lies at the tolerance. */
export const GAMUT_FULL_SCALE = 60;
export const GAMUT_TOLERANCE = 1.5;
