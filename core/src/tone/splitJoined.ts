import { evaluateToneCurve } from './toneCurve.ts';
import type { ToneCurve } from './toneCurve.ts';

/** What a channel of values becomes: amounts of the inks of a device. */
export interface JoinedInk {
  /** Channel that carries the tone of both inks. */
  readonly from: number;
  readonly inks: readonly { readonly to: number; readonly curve: ToneCurve }[];
}

/**
 * Values of a device's own inks from values in which light and full inks are one channel.
 * @param values row-major × `channels`, 0..1.
 * @param own place among the inks of each channel that is passed on as it is.
 * @returns row-major × `inks`.
 */
export function splitJoined(
  values: Float64Array,
  channels: number,
  inks: number,
  joins: readonly JoinedInk[],
  own: ReadonlyMap<number, number>,
): Float64Array {
  const rows = values.length / channels;
  const out = new Float64Array(rows * inks);
  for (let row = 0; row < rows; row++) {
    for (const [from, to] of own) out[row * inks + to] = values[row * channels + from];
    for (const { from, inks: parts } of joins)
      for (const { to, curve } of parts)
        out[row * inks + to] = evaluateToneCurve(curve, values[row * channels + from]);
  }
  return out;
}
