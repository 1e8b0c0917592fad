import type { ReaderKind } from '../charts/pageGeometry.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';

export type MeasurementMode = 'M0' | 'M1' | 'M2' | 'M3';

/** Why an instrument refuses a pass. */
export type PassFailure = 'too-fast' | 'off-row' | 'started-late' | 'tile-needed';

/** How the hand moves a simulated reader; real instruments ignore it. */
export type HandMovement = 'steady' | 'too-fast' | 'off-row' | 'started-late' | 'backwards' | 'other-strip';

export interface StripPatches {
  /** Row-major patch × channel, 0..1, in the order of the strip. */
  readonly device: Float64Array;
  readonly page: number;
  readonly strip: number;
  /** Strips on the page. */
  readonly strips: number;
}

export interface PassRequest {
  readonly printState: string;
  readonly patches: StripPatches;
  /** The strip that a hand takes by mistake. */
  readonly otherPatches?: StripPatches;
  readonly mode: MeasurementMode;
  readonly attempt: string;
  readonly timeMs: number;
  /** Domain time of the last white-tile calibration, if any. */
  readonly tileMs?: number;
  readonly hand?: HandMovement;
  /** From when on a simulated instrument reads otherwise than it was certified. */
  readonly biasFromMs?: number;
}

export type PassOutcome =
  | {
      readonly ok: true;
      readonly grid: SpectralGrid;
      /** Row-major patch × band, 0..1. */ readonly spectra: Float64Array;
    }
  | { readonly ok: false; readonly failure: PassFailure };

/** Something that reads strips: a driver of a real spectrophotometer or a simulated one. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly kind: ReaderKind;
  readonly modes: readonly MeasurementMode[];
  /** Age in milliseconds after which the white tile must be read again. */
  readonly tileLifeMs: number;
  readStrip(request: PassRequest): PassOutcome;
}
