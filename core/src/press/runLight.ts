import type { PatchSpectra } from '../cgats/patchSet.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { lightOfKey } from '../light/standardLights.ts';
import type { StandardLightKey } from '../light/standardLights.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { spectraToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights, observerWords } from '../spectral/xyzWeights.ts';
import type { Observer, XyzWeights } from '../spectral/xyzWeights.ts';
import type { BarReading } from './barReading.ts';

/** The light that colours of a run are judged in, and by whom. */
export interface RunLight {
  readonly light: StandardLightKey;
  readonly observer: Observer;
}

/** What colours are measured for, and what aim sets and colour lists are told for. */
export const USUAL_LIGHT: RunLight = { light: 'D50', observer: '2deg' };

/** Whether colours need no spectra to be judged so. */
export const isUsualLight = ({ light, observer }: RunLight): boolean =>
  light === USUAL_LIGHT.light && observer === USUAL_LIGHT.observer;

/** As people write it: `D50/2°`. */
export const lightWords = ({ light, observer }: RunLight): string => `${light}/${observerWords(observer)}`;

/** Weights of a run's light for spectra on a grid. @throws RangeError for a light that no standard defines. */
export function runLightWeights(grid: SpectralGrid, { light, observer }: RunLight): XyzWeights {
  const known = lightOfKey(light);
  if (known === undefined) throw new RangeError(`light ${light}`);
  return createXyzWeights(grid, known, observer);
}

/** Colours that are told for D50 and 2°, with the spectra that they are worked out from for other lights. */
export interface ToldColours {
  /** Lab for D50 and 2°, row-major patch × 3. */
  readonly lab: Float64Array;
  readonly spectra?: PatchSpectra;
}

/**
 * Lab as a run's light shows it, relative to that light's white: row-major patch × 3. Of other lights than D50 for 2° only
 * spectra tell; NaN where a patch has none.
 */
export function labInLight({ lab, spectra }: ToldColours, seen: RunLight): Float64Array {
  if (isUsualLight(seen)) return lab;
  if (spectra === undefined) return new Float64Array(lab.length).fill(NaN);
  const weights = runLightWeights(spectra.grid, seen);
  const out = new Float64Array(lab.length);
  spectraToXyz(weights, spectra.values, out);
  const white: Xyz = weights.white;
  xyzRowsToLab(out, white, out);
  return out;
}

/** The same of a reading. */
export function readingInLight({ xyz, grid, spectra }: BarReading, seen: RunLight): Float64Array {
  const told = spectra === undefined || grid === undefined ? undefined : { grid, values: spectra };
  return labInLight({ lab: measuredLabRows(xyz), spectra: told }, seen);
}
