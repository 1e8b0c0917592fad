import type { PatchLayout } from '../cgats/patchSet.ts';
import type { ChartLayout } from './layoutChart.ts';
import type { PaperName } from './pageGeometry.ts';

/** Page, strip on the page and place of each patch, all from 1, in the order of the patches. */
export function layoutColumns(layout: ChartLayout): PatchLayout {
  const count = layout.pages.flat(2).length;
  const page = new Int32Array(count);
  const strip = new Int32Array(count);
  const place = new Int32Array(count);
  layout.pages.forEach((strips, p) =>
    strips.forEach((patches, s) =>
      patches.forEach((patch, i) => {
        page[patch] = p + 1;
        strip[patch] = s + 1;
        place[patch] = i + 1;
      }),
    ),
  );
  return { page, strip, place };
}

/** Inverse of `layoutColumns`; undefined where a place is missing or taken twice. */
export function layoutFromColumns(columns: PatchLayout, paper: PaperName): ChartLayout | undefined {
  const pages: number[][][] = [];
  for (let patch = 0; patch < columns.page.length; patch++) {
    const [p, s, i] = [columns.page[patch] - 1, columns.strip[patch] - 1, columns.place[patch] - 1];
    if (p < 0 || s < 0 || i < 0 || p > 999 || s > 999 || i > 999) return undefined;
    const strip = ((pages[p] ??= [])[s] ??= []);
    if (strip[i] !== undefined) return undefined;
    strip[i] = patch;
  }
  const whole = (list: readonly unknown[]): boolean =>
    list.length > 0 && !Array.from(list).includes(undefined);
  if (!whole(pages) || !pages.every((page) => whole(page) && page.every(whole))) return undefined;
  return { paper, pages };
}
