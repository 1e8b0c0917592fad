import type { Instrument } from '@melto/core/device/instrument';
import { createRandom, seedFrom } from '@melto/core/numerics/random';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { decodePrintState } from '../printState.ts';
import { printedSpectra } from '../printedSpectra.ts';
import { addReadingNoise } from '../readingNoise.ts';

const BANDS = GRID_380_730_10.count;
/** Repeatability in mean ΔE00 on white; it grows towards black. */
const REPEATABILITY_WHITE = 0.07;
const REPEATABILITY_BLACK = 0.22;
/** White drifts by this share of reflectance over the life of a tile calibration. */
const TILE_DRIFT = 0.0015;

/** A hand-held reader that is drawn along a strip. */
export function createStripReader(id: string, name: string): Instrument {
  // Each copy of an instrument has a bias of its own, smooth along the spectrum.
  const own = createRandom(seedFrom(id, 'bias'));
  const tilt = own.normal() * 0.0016;
  const level = own.normal() * 0.0012;
  const bias = Float64Array.from(
    { length: BANDS },
    (_, band) => 1 + level + tilt * (band / (BANDS - 1) - 0.5),
  );
  const tileLifeMs = 2 * 3_600_000;
  return {
    id,
    name,
    modes: ['M0', 'M1', 'M2'],
    tileLifeMs,
    readStrip({ printState, patches, otherPatches, mode, attempt, timeMs, tileMs, hand = 'steady' }) {
      if (tileMs === undefined || timeMs - tileMs > tileLifeMs) return { ok: false, failure: 'tile-needed' };
      if (hand === 'too-fast' || hand === 'off-row' || hand === 'started-late')
        return { ok: false, failure: hand };
      const read = hand === 'other-strip' && otherPatches !== undefined ? otherPatches : patches;
      const state = decodePrintState(printState);
      const spectra = printedSpectra(state, read, mode, timeMs);
      const random = createRandom(seedFrom(printState, id, read.page, read.strip, attempt));
      const drift = 1 + (TILE_DRIFT * (timeMs - tileMs)) / tileLifeMs;
      for (let at = 0; at < spectra.length; at += BANDS) {
        for (let band = 0; band < BANDS; band++) spectra[at + band] *= bias[band] * drift;
        addReadingNoise(
          spectra,
          at,
          (l) => REPEATABILITY_BLACK + (REPEATABILITY_WHITE - REPEATABILITY_BLACK) * (l / 100),
          random,
        );
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
