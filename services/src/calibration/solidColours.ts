import { labToHex } from '@melto/core/colour/srgb';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import type { PressReading } from './pressReading.ts';

/** Screen colours of the solids, for the lines of the inks. */
export function solidColours({ device, lab }: PressReading): string[] {
  return PROCESS_INKS.map((_, channel) => {
    for (let i = 0; i * 4 < device.length; i++) {
      const values = device.subarray(4 * i, 4 * i + 4);
      if (values[channel] > 0.995 && values.filter((value) => value > 1e-6).length === 1)
        return labToHex([lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]);
    }
    return '#1b1b1b';
  });
}
