import { chartModel } from '../characterise/chartModel.ts';
import type { ChartModel } from '../characterise/chartModel.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { coloursUnder } from './colourUnder.ts';
import type { SeenIn } from './colourUnder.ts';

/** A chart with its spectra: what tells how a device's inks look in any light. */
export interface SpectralChart {
  /** Of the device: 3 for light, more for inks. */
  readonly channels: number;
  /** Row-major patch × channel, 0..1. */
  readonly device: ArrayLike<number>;
  readonly grid: SpectralGrid;
  /** Reflectance factors, row-major patch × band. */
  readonly spectra: ArrayLike<number>;
}

/** The light of D50 and the observer of 2°, which prints are compared by. */
export const DAYLIGHT: SeenIn = { light: tableIlluminant('D50'), observer: '2deg' };

/** XYZ of device rows in a light, adapted to D50, row-major × 3. */
export type ChartInLights = (seen: SeenIn) => ChartModel;

/** A model of a chart in each light that is asked for, fitted once for each. */
export function chartInLights({ channels, device, grid, spectra }: SpectralChart): ChartInLights {
  const values = Float64Array.from(device);
  const chart = { grid, values: Float64Array.from(spectra) };
  const fitted = new Map<string, ChartModel>();
  return (seen) => {
    // Lights of one name may differ.
    const key = `${seen.observer} ${seen.light.name} ${seen.light.power.join()}`;
    const known = fitted.get(key) ?? chartModel(channels, values, coloursUnder(chart, seen));
    fitted.set(key, known);
    return known;
  };
}

/**
 * How far device rows move from how they look in D50 to how they look in a light: differences of Lab, row-major × 3. Each
 * light has a model of its own; what they say of D50 is taken out, so that their errors are not shown as a light's doing.
 */
export function movedInLight(chart: ChartInLights, rows: ArrayLike<number>, seen: SeenIn): Float64Array {
  const daylight = measuredLabRows(chart(DAYLIGHT)(rows));
  return measuredLabRows(chart(seen)(rows)).map((value, i) => value - daylight[i]);
}
