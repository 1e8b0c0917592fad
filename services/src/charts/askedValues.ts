import { channelCount, CMYK, sameProcess } from '@melto/core/device/process';
import type { PatchSet } from '@melto/core/cgats/patchSet';

/** CMYK values that a chart asks for, of some of its rows; undefined where it asks for other colours. */
export function askedCmyk(
  { device, process }: Pick<PatchSet, 'device' | 'process'>,
  rows: readonly number[],
): Float64Array | undefined {
  if (device === undefined || !sameProcess(process, CMYK)) return undefined;
  const channels = channelCount(CMYK);
  return Float64Array.from(rows.flatMap((row) => [...device.subarray(channels * row, channels * (row + 1))]));
}
