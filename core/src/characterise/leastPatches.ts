import { baseInks } from '../device/baseInks.ts';
import { channelCount, CMYK, drivenByInks, RGB, sameProcess } from '../device/process.ts';
import type { Process } from '../device/process.ts';

const OF_RGB = 40;
const OF_CMYK = 150;
/** For each ink beyond four. */
const OF_FURTHER = 100;

/** Whether Melto makes profiles of a process: RGB, CMYK, or these four and up to four other inks. */
export function profiledProcess(process: Process): boolean {
  return (
    sameProcess(process, RGB) ||
    sameProcess(process, CMYK) ||
    (drivenByInks(process) && channelCount(process) > 4 && baseInks(process) !== undefined)
  );
}

/** Least number of patches that can carry a model of a process. */
export function leastPatches(process: Process): number {
  if (sameProcess(process, RGB)) return OF_RGB;
  return OF_CMYK + OF_FURTHER * Math.max(0, channelCount(process) - 4);
}
