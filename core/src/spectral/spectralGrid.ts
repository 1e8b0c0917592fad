/** A regular grid of wavelengths in nm. */
export interface SpectralGrid {
  readonly startNm: number;
  readonly stepNm: number;
  readonly count: number;
}

/** The grid of most instruments and of the simulator: 380-730 nm at 10 nm, 36 bands. */
export const GRID_380_730_10: SpectralGrid = { startNm: 380, stepNm: 10, count: 36 };

export function gridEndNm(grid: SpectralGrid): number {
  return grid.startNm + grid.stepNm * (grid.count - 1);
}

export function gridWavelengths(grid: SpectralGrid): number[] {
  return Array.from({ length: grid.count }, (_, i) => grid.startNm + i * grid.stepNm);
}

export function sameGrid(a: SpectralGrid, b: SpectralGrid): boolean {
  return a.startNm === b.startNm && a.stepNm === b.stepNm && a.count === b.count;
}
