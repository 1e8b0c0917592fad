import { gridEndNm } from './spectralGrid.ts';
import type { SpectralGrid } from './spectralGrid.ts';

/** A spectrum has to begin here or before, and end there or after, in steps no wider, for colours to be computed of it. */
export const COLOUR_RANGE = { latestStartNm: 400, earliestEndNm: 700, widestStepNm: 20 } as const;

/** Whether colours can be computed from spectra of a grid: without most of the visible range they would be others. */
export function coversColours(grid: SpectralGrid): boolean {
  const { latestStartNm, earliestEndNm, widestStepNm } = COLOUR_RANGE;
  return grid.startNm <= latestStartNm && gridEndNm(grid) >= earliestEndNm && grid.stepNm <= widestStepNm;
}
