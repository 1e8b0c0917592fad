import type { Instrument } from '@melto/core/device/instrument';

const HOUR_MS = 3_600_000;

/** Mean reflectance factor of one patch of a strip, ten hours after printing. */
export function spectrumOf(reader: Instrument, printState: string, device: Float64Array, place = 0): number {
  const timeMs = 10 * HOUR_MS;
  const outcome = reader.readStrip({
    printState,
    patches: { device, page: 1, strip: 1, strips: 10 },
    mode: 'M1',
    attempt: 'a',
    timeMs,
    tileMs: timeMs,
  });
  if (!outcome.ok) throw new Error(outcome.failure);
  const { count } = outcome.grid;
  return outcome.spectra.subarray(place * count, (place + 1) * count).reduce((a, b) => a + b, 0) / count;
}
