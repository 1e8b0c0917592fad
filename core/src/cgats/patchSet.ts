import type { Process } from '../device/process.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';

/** Conditions of measurement (ISO 13655) as far as a file tells them. */
export interface MeasurementConditions {
  readonly mode?: 'M0' | 'M1' | 'M2' | 'M3';
  readonly filter?: string;
  readonly backing?: string;
  readonly illuminant?: string;
  readonly observer?: string;
  readonly instrument?: string;
}

export interface PatchSpectra {
  readonly grid: SpectralGrid;
  /** Row-major patch × band, reflectance factors 0..1. */
  readonly values: Float64Array;
}

/** Where each patch stands on paper; pages and strips count from 1, places from 1 along the strip. */
export interface PatchLayout {
  readonly page: Int32Array;
  readonly strip: Int32Array;
  readonly place: Int32Array;
}

/** Patches with their device values, colours and spectra: a chart, a reading or both. */
export interface PatchSet {
  readonly ids: readonly string[];
  readonly names?: readonly string[];
  readonly process?: Process;
  /** Row-major patch × channel, 0..1. */
  readonly device?: Float64Array;
  /** Row-major patch × 3, Y = 100 for a perfect reflector. */
  readonly xyz?: Float64Array;
  /** Row-major patch × 3, D50/2°. */
  readonly lab?: Float64Array;
  readonly spectra?: PatchSpectra;
  readonly layout?: PatchLayout;
  readonly conditions: MeasurementConditions;
  readonly title?: string;
  readonly originator?: string;
  readonly created?: string;
  /** What the reader had to decide, in words, for the user to see. */
  readonly notes: readonly string[];
}
