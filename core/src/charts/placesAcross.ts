import { layoutColumns } from './layoutColumns.ts';
import type { ChartLayout } from './layoutChart.ts';
import type { PatchLayout } from '../cgats/patchSet.ts';

/** Place of each patch across the width of the sheet, 0..1, strips running across it. */
export function placesAcross(layout: ChartLayout): Float64Array {
  return acrossOfColumns(layoutColumns(layout));
}

export function acrossOfColumns({ place }: Pick<PatchLayout, 'place'>): Float64Array {
  let longest = 1;
  for (const value of place) longest = Math.max(longest, value);
  return Float64Array.from(place, (value) => (value - 0.5) / longest);
}
