import { channelCount, isBare } from './process.ts';
import type { Process } from './process.ts';

/** Mean XYZ of the patches that leave the stock bare; undefined where there are none. */
export function meanPaperXyz(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
): [number, number, number] | undefined {
  const sum: [number, number, number] = [0, 0, 0];
  const rows = device.length / channelCount(process);
  let count = 0;
  for (let row = 0; row < rows; row++) {
    if (!isBare(process, device, row)) continue;
    count++;
    for (const axis of [0, 1, 2] as const) sum[axis] += xyz[row * 3 + axis] ?? NaN;
  }
  return count === 0 ? undefined : [sum[0] / count, sum[1] / count, sum[2] / count];
}
