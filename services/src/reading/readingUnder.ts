import type { PatchSpectra } from '@melto/core/cgats/patchSet';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { labAt } from '@melto/core/colour/labAt';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { loadReading } from './loadReading.ts';
import type { LoadedReading } from './loadReading.ts';

/** A patch as a light shows it. */
export interface SeenPatch {
  /** Row of the chart. */
  readonly row: number;
  /** Relative to the white of the light. */
  readonly lab: Lab;
  /** ΔE00 from how it looks in D50 to the 2° observer, each against its own white. */
  readonly moved: number;
}

/** The patches of a reading as a light shows them; refused where the reading has no spectra. */
export async function readingUnder(
  context: Context,
  readingId: number,
  key: string,
  observer: Observer,
): Promise<readonly SeenPatch[]> {
  const [loaded, light] = await Promise.all([loadReading(context, readingId), viewingLight(context, key)]);
  const { grid, values } = requireSpectra(loaded);
  const weights = createXyzWeights(grid, light, observer);
  const seen = new Float64Array(loaded.lab.length);
  spectraToXyz(weights, values, seen);
  xyzRowsToLab(seen, weights.white, seen);
  const moved = deltaE2000Rows(loaded.lab, seen);
  return loaded.rows.map((row, i) => ({ row, lab: labAt(seen, i), moved: moved[i] }));
}

/** The spectra of a reading; refused where it was read as colours only. */
export function requireSpectra({ set, print }: Pick<LoadedReading, 'set' | 'print'>): PatchSpectra {
  if (set.spectra === undefined)
    throw new Problem(
      'bad-input',
      `${print.code} was read as colours only; how they look in another light takes spectra.`,
      'Take D50, or a reading with spectra.',
      'light',
    );
  return set.spectra;
}
