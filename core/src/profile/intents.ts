import type { Xyz } from '../colour/xyz.ts';
import type { MapStrength } from '../gamut/gamutMap.ts';

/**
 * Perceptual black of version 2. The standard leaves it open; Melto ends the scale at zero, so that a picture's
 * black is the device's black whether or not the colour engine compensates the black point.
 */
export const VERSION_2_BLACK: Xyz = [0, 0, 0];
/** How strongly the mapped intents move colours: pictures keep to what they are, graphics use all that prints. */
export const MAP_STRENGTH: Readonly<Record<'perceptual' | 'saturation', MapStrength>> = {
  perceptual: { knee: 0.78, stretch: 0.9, over: 0.02 },
  saturation: { knee: 0.9, stretch: 1, over: 0.12 },
};
/** ΔE*ab that counts as full scale of the `gamt` tag; its first step lies at the tolerance. */
export const GAMUT_FULL_SCALE = 60;
export const GAMUT_TOLERANCE = 1.5;
