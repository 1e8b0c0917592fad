import { channelCount, inkProcess, RGB, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { UsageError } from './usageError.ts';

/** The inks of a file that counts them and does not name them, as a person names them. */
export function namedInks(
  found: { readonly device: Float64Array; readonly process: Process },
  { measured, inks }: { readonly measured: string; readonly inks?: string },
): { readonly device: Float64Array; readonly process: Process } {
  const counted = found.process.channels.every(({ name }) => name.startsWith('ink '));
  if (inks === undefined) {
    if (counted && !sameProcess(found.process, RGB))
      throw new UsageError(
        `${measured}: it counts its ${channelCount(found.process)} inks and does not name them: say --inks C,M,Y,K,O,G in their order`,
      );
    return found;
  }
  const names = inks.split(',').map((name) => name.trim());
  if (!counted || names.length !== channelCount(found.process) || names.some((name) => name === ''))
    throw new UsageError(
      `--inks: found "${inks}", expected names of ${channelCount(found.process)} inks of a file that does not name them`,
    );
  if (new Set(names).size < names.length)
    throw new UsageError(`--inks: found "${inks}", expected each name once`);
  return { ...found, process: inkProcess(names) };
}
