'use client';

import type { SeenIn } from '@melto/core/light/colourUnder';
import { illuminantOf } from './illuminantOf';
import { shortName, useLights } from './useLights';

/** Standard lights that colours are compared in, beside those of the house. */
const STANDARD = ['D65', 'A', 'F11'];

/** A light that colours are compared in. */
export interface ComparedLight {
  readonly name: string;
  readonly seen: SeenIn;
}

/** Lights that colours are compared in: some standard ones, and those of the house. @param mostOwn of the house. */
export function useComparedLights(mostOwn = Infinity): readonly ComparedLight[] {
  return useLights()
    .filter(({ id, key }) => id !== null || STANDARD.includes(key))
    .slice(0, STANDARD.length + mostOwn)
    .map((light) => ({
      name: shortName(light),
      seen: { light: illuminantOf(light), observer: '2deg' },
    }));
}
