import { channelCount, drivenByInks } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { CMYK_CHART_PATCHES } from './cmykChart.ts';
import { MANY_INK_CHART_PATCHES } from './manyInkChart.ts';
import { RGB_CHART_PATCHES } from './rgbChart.ts';

/** How many patches a profiling chart of a process may have, and how many it has where nothing is asked. */
export interface ChartPatches {
  readonly least: number;
  readonly most: number;
  readonly usual: number;
}

export function chartPatches(process: Process): ChartPatches {
  if (!drivenByInks(process)) return { ...RGB_CHART_PATCHES, usual: 900 };
  return channelCount(process) > 4
    ? { ...MANY_INK_CHART_PATCHES, usual: 1200 }
    : { ...CMYK_CHART_PATCHES, usual: 800 };
}
