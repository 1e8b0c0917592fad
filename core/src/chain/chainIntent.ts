import type { RenderingIntent } from '../icc/profileTransform.ts';

/** How a job is converted: an intent, with the black points of both sides brought together or not. */
export const CHAIN_INTENTS = {
  'relative-black': { words: 'relative colorimetric with black point compensation', intent: 'relative' },
  relative: { words: 'relative colorimetric', intent: 'relative' },
  perceptual: { words: 'perceptual', intent: 'perceptual' },
  saturation: { words: 'saturation', intent: 'saturation' },
  absolute: { words: 'absolute colorimetric', intent: 'absolute' },
} as const satisfies Record<string, { readonly words: string; readonly intent: RenderingIntent }>;
export type ChainIntent = keyof typeof CHAIN_INTENTS;
