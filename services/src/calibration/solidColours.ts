import { labToHex } from '@melto/core/colour/srgb';
import type { PressReading } from './pressReading.ts';

/** Screen colours of the solids, for the lines of the inks. */
export function solidColours({ device, lab, condition }: PressReading): string[] {
  const { channels } = condition.process;
  return channels.map((_, channel) => {
    for (let i = 0; i * channels.length < device.length; i++) {
      const values = device.subarray(channels.length * i, channels.length * (i + 1));
      if (values[channel] > 0.995 && values.filter((value) => value > 1e-6).length === 1)
        return labToHex([lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]);
    }
    return '#1b1b1b';
  });
}
