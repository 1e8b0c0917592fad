import { drivenByLight } from './process.ts';
import type { Process } from './process.ts';

/** What full ink or light may be written as. */
export const DEVICE_SCALES = [1, 100, 255, 65535] as const;
export type DeviceScale = (typeof DEVICE_SCALES)[number];

/** The scale that device values stand on, or those that it may be. */
export type FoundScale =
  | { readonly clear: DeviceScale; readonly options?: undefined }
  | { readonly clear?: undefined; readonly options: readonly DeviceScale[] };

/** Rounding of programs: 256 steps for 255, or half a step. */
const OVER: Readonly<Record<DeviceScale, number>> = { 1: 1e-4, 100: 0.4, 255: 0.51, 65535: 0.51 };

/**
 * A scale is clear where the largest value is its full value: charts hold the solid of some ink, or bare paper for
 * lights. Where it is not, the largest value leaves the scales that can hold it, and a person decides.
 * @param values as written, at least one.
 */
export function deviceScale(process: Process, values: ArrayLike<number>): FoundScale | undefined {
  let most = 0;
  let least = Infinity;
  for (let i = 0; i < values.length; i++) {
    most = Math.max(most, values[i]);
    least = Math.min(least, values[i]);
  }
  if (least < -1e-4 || most > DEVICE_SCALES[3] + OVER[65535]) return undefined;
  const full = DEVICE_SCALES.find((scale) => Math.abs(most - scale) <= OVER[scale]);
  // Ink values of a whole file that is never over 1 % tell nothing that a printer could show: they are shares.
  if (full !== undefined) return { clear: full };
  if (most === 0 && !drivenByLight(process)) return { clear: 100 };
  return { options: DEVICE_SCALES.filter((scale) => scale > most && scale / Math.max(most, 1e-6) < 300) };
}

/** A device value 0..1; undefined where it is none on this scale. */
export function deviceShare(value: number, scale: DeviceScale): number | undefined {
  if (value < -OVER[scale] || value > scale + OVER[scale]) return undefined;
  return Math.min(1, Math.max(0, value / scale));
}
