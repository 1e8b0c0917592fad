import type { Process } from '../device/process.ts';
import { layoutChart } from './layoutChart.ts';
import type { ChartLayout } from './layoutChart.ts';
import { pageCapacity, STRIP_READER_NEEDS } from './pageGeometry.ts';
import type { InstrumentNeeds, PaperName } from './pageGeometry.ts';

/**
 * Lays several copies of a chart out so that a device's unevenness cancels in their mean: the second copy is mirrored
 * across the width, the third and fourth are moved by half of it. Row i of copy k is patch k·n + i.
 * @param device one copy, row-major × channels.
 */
export function layoutCopies(
  process: Process,
  device: Float64Array,
  copies: number,
  paper: PaperName,
  seed: number,
  needs: InstrumentNeeds = STRIP_READER_NEEDS,
): ChartLayout {
  const base = layoutChart(process, device, paper, seed, needs).pages.flat();
  const patches = base.reduce((sum, strip) => sum + strip.length, 0);
  const strips = Array.from({ length: copies }, (_, copy) =>
    base.map((_, index) => {
      // Another strip comes first in each copy, so that copies lie far apart down the page as well.
      const strip = base[(index + Math.floor((copy * base.length) / copies)) % base.length];
      const half = copy % 4 >= 2 ? Math.floor(strip.length / 2) : 0;
      const moved = [...strip.slice(half), ...strip.slice(0, half)];
      return (copy % 2 === 1 ? moved.reverse() : moved).map((row) => copy * patches + row);
    }),
  ).flat();
  return { paper, pages: dealStrips(strips, pageCapacity(paper, needs).stripsPerPage) };
}

/** Patches in their own order, strip after strip. */
export function layoutInOrder(patches: number, paper: PaperName, needs: InstrumentNeeds): ChartLayout {
  const { patchesPerStrip, stripsPerPage } = pageCapacity(paper, needs);
  const strips = Array.from({ length: Math.ceil(patches / patchesPerStrip) }, (_, s) =>
    Array.from(
      { length: Math.min(patchesPerStrip, patches - s * patchesPerStrip) },
      (_, i) => s * patchesPerStrip + i,
    ),
  );
  return { paper, pages: dealStrips(strips, stripsPerPage) };
}

/** Spreads strips evenly over as few pages as hold them. */
export function dealStrips(strips: readonly number[][], stripsPerPage: number): number[][][] {
  const pages = Math.ceil(strips.length / stripsPerPage);
  return Array.from({ length: pages }, (_, page) =>
    strips.slice(
      Math.round((page * strips.length) / pages),
      Math.round(((page + 1) * strips.length) / pages),
    ),
  );
}
