import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import type { Instrument, MeasurementMode } from '@melto/core/device/instrument';
import { createRandom, seedFrom } from '@melto/core/numerics/random';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { decodePrintState } from '../printState.ts';
import { printedSpectra } from '../printedSpectra.ts';
import { INSTRUMENT_CHANGE } from '../data/changes.ts';
import { addReadingNoise } from '../readingNoise.ts';

const BANDS = GRID_380_730_10.count;
/** White drifts by this share of reflectance over the life of a tile calibration. */
const TILE_DRIFT = 0.0015;

/** What sets a kind of reader apart; repeatability in mean ΔE00, on white and on black. */
interface ReaderTraits {
  readonly kind: ReaderKind;
  readonly modes: readonly MeasurementMode[];
  readonly white: number;
  readonly black: number;
  readonly tileHours: number;
}

/** A hand-held reader that is drawn along a strip. */
export function createStripReader(id: string, name: string): Instrument {
  return createReader(id, name, {
    kind: 'strip',
    modes: ['M0', 'M1', 'M2'],
    white: 0.07,
    black: 0.22,
    tileHours: 2,
  });
}

/** A reader that is set on single patches; it has a polariser. Its strips are rows of single patches. */
export function createSpotReader(id: string, name: string): Instrument {
  return createReader(id, name, {
    kind: 'spot',
    modes: ['M0', 'M1', 'M2', 'M3'],
    white: 0.05,
    black: 0.16,
    tileHours: 4,
  });
}

/** A reader that moves a whole page by itself, row after row. */
export function createSheetReader(id: string, name: string): Instrument {
  return createReader(id, name, {
    kind: 'sheet',
    modes: ['M0', 'M1', 'M2'],
    white: 0.06,
    black: 0.2,
    tileHours: 8,
  });
}

function createReader(id: string, name: string, traits: ReaderTraits): Instrument {
  // Each copy of an instrument has a bias of its own, smooth along the spectrum.
  const own = createRandom(seedFrom(id, 'bias'));
  const tilt = own.normal() * 0.0016;
  const level = own.normal() * 0.0012;
  const bias = Float64Array.from(
    { length: BANDS },
    (_, band) => 1 + level + tilt * (band / (BANDS - 1) - 0.5),
  );
  const tileLifeMs = traits.tileHours * 3_600_000;
  return {
    id,
    name,
    kind: traits.kind,
    modes: traits.modes,
    tileLifeMs,
    readStrip({
      printState,
      patches,
      otherPatches,
      mode,
      attempt,
      timeMs,
      tileMs,
      biasFromMs,
      hand: asked = 'steady',
    }) {
      if (tileMs === undefined || timeMs - tileMs > tileLifeMs) return { ok: false, failure: 'tile-needed' };
      // What a hand does wrong does not happen to a reader that moves by itself.
      const hand = traits.kind === 'sheet' ? 'steady' : asked;
      if (hand === 'too-fast' || hand === 'off-row' || hand === 'started-late')
        return { ok: false, failure: hand };
      const read = hand === 'other-strip' && otherPatches !== undefined ? otherPatches : patches;
      const state = decodePrintState(printState);
      const spectra = printedSpectra(state, read, mode, timeMs);
      const random = createRandom(seedFrom(printState, id, read.page, read.strip, attempt));
      const drift = 1 + (TILE_DRIFT * (timeMs - tileMs)) / tileLifeMs;
      const biased = biasFromMs !== undefined && timeMs >= biasFromMs;
      for (let at = 0; at < spectra.length; at += BANDS) {
        for (let band = 0; band < BANDS; band++)
          spectra[at + band] *= bias[band] * drift * (biased ? INSTRUMENT_CHANGE(band / (BANDS - 1)) : 1);
        addReadingNoise(spectra, at, (l) => traits.black + (traits.white - traits.black) * (l / 100), random);
      }
      return { ok: true, grid: GRID_380_730_10, spectra: hand === 'backwards' ? reversed(spectra) : spectra };
    },
  };
}

function reversed(spectra: Float64Array): Float64Array {
  const out = new Float64Array(spectra.length);
  const count = spectra.length / BANDS;
  for (let i = 0; i < count; i++)
    out.set(spectra.subarray(i * BANDS, (i + 1) * BANDS), (count - 1 - i) * BANDS);
  return out;
}
