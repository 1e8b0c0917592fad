import type { PatchLayout } from './patchSet.ts';

/** Page, strip and place along it, each counted from 1; undefined where a column is missing or is no whole numbers. */
export function patchLayoutOf(
  page: readonly string[] | undefined,
  strip: readonly string[] | undefined,
  place: readonly string[] | undefined,
): PatchLayout | undefined {
  const counted = (column: readonly string[] | undefined): Int32Array | undefined =>
    column?.every((word) => /^\d{1,6}$/.test(word)) === true ? Int32Array.from(column, Number) : undefined;
  const [pages, strips, places] = [page, strip, place].map(counted);
  return pages === undefined || strips === undefined || places === undefined
    ? undefined
    : { page: pages, strip: strips, place: places };
}
