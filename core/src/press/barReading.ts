import { sameGrid } from '../spectral/spectralGrid.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';

/** Values of one sheet's colour bar, a row for each patch of the bar; NaN in the rows of those that were not read. */
export interface BarReading {
  /** Row-major patch × 3, Y = 100, for the run's light and observer. */
  readonly xyz: Float64Array;
  /** Row-major patch × 4: absolute densities through red, green, blue, visual, by the run's status. */
  readonly density: Float64Array;
  /** Spectra where the sender tells them; reflectance factors 0..1, row-major patch × band. */
  readonly grid?: SpectralGrid;
  readonly spectra?: Float64Array;
}

/** Whether a patch was read. */
export function wasRead({ xyz, density }: BarReading, patch: number): boolean {
  return Number.isFinite(xyz[3 * patch + 1]) || Number.isFinite(density[4 * patch + 3]);
}

/** Patches that are still open. */
export function openPatches(reading: BarReading): number[] {
  const count = reading.xyz.length / 3;
  return Array.from({ length: count }, (_, patch) => patch).filter((patch) => !wasRead(reading, patch));
}

/**
 * A reading completed by another of the same sheet: what the earlier one has stays. Of spectra only as far as both are on
 * one grid.
 * @throws RangeError where they are not of one bar.
 */
export function completedBy(earlier: BarReading, later: BarReading): BarReading {
  if (earlier.xyz.length !== later.xyz.length)
    throw new RangeError(
      `a bar of ${earlier.xyz.length / 3} patches completed by one of ${later.xyz.length / 3}`,
    );
  const open = openPatches(earlier).filter((patch) => wasRead(later, patch));
  const xyz = Float64Array.from(earlier.xyz);
  const density = Float64Array.from(earlier.density);
  const { grid } = earlier;
  const alike = grid !== undefined && later.grid !== undefined && sameGrid(grid, later.grid);
  const spectra = earlier.spectra === undefined ? undefined : Float64Array.from(earlier.spectra);
  for (const patch of open) {
    for (let i = 0; i < 3; i++) xyz[3 * patch + i] = later.xyz[3 * patch + i];
    for (let i = 0; i < 4; i++) density[4 * patch + i] = later.density[4 * patch + i];
    if (alike && spectra !== undefined && later.spectra !== undefined)
      spectra.set(later.spectra.subarray(patch * grid.count, (patch + 1) * grid.count), patch * grid.count);
  }
  return spectra === undefined ? { xyz, density } : { xyz, density, grid, spectra };
}
