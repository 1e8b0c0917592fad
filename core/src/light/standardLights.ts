import { nominalDaylight, tableIlluminant } from '../spectral/illuminant.ts';
import type { Illuminant } from '../spectral/illuminant.ts';

/** Lights that standards define, as far as their tables are here (CIE 15; D55 and D75 by its formula of daylight). */
export const STANDARD_LIGHTS = [
  { key: 'D50', name: 'D50, daylight of 5000 K, under which prints are compared' },
  { key: 'D55', name: 'D55, daylight of 5500 K' },
  { key: 'D65', name: 'D65, daylight of 6500 K' },
  { key: 'D75', name: 'D75, daylight of 7500 K' },
  { key: 'A', name: 'A, tungsten lamp' },
  { key: 'F2', name: 'F2, cool white fluorescent lamp' },
  { key: 'F8', name: 'F8, fluorescent lamp of daylight colour, broad bands' },
  { key: 'F11', name: 'F11, fluorescent lamp of three narrow bands' },
] as const;

/** Key of a light that a standard defines. */
export type StandardLightKey = (typeof STANDARD_LIGHTS)[number]['key'];

/** A standard light by its key; undefined where there is none. */
export function lightOfKey(key: string): Illuminant | undefined {
  const known = STANDARD_LIGHTS.find((light) => light.key === key)?.key;
  if (known === undefined) return undefined;
  if (known === 'D55' || known === 'D75')
    return { ...nominalDaylight(known === 'D55' ? 5500 : 7500), name: known };
  return tableIlluminant(known);
}
