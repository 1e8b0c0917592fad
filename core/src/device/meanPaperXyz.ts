import { channelCount, isBare } from './process.ts';
import type { Process } from './process.ts';

/** Rows of the patches that leave the stock bare. */
export function bareRows(process: Process, device: Float64Array): number[] {
  const rows = device.length / channelCount(process);
  return Array.from({ length: rows }, (_, row) => row).filter((row) => isBare(process, device, row));
}

/** Mean XYZ of the patches that leave the stock bare; undefined where there are none. */
export function meanPaperXyz(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
): [number, number, number] | undefined {
  const rows = bareRows(process, device);
  if (rows.length === 0) return undefined;
  const mean = (axis: number): number =>
    rows.reduce((sum, row) => sum + (xyz[row * 3 + axis] ?? NaN), 0) / rows.length;
  return [mean(0), mean(1), mean(2)];
}
