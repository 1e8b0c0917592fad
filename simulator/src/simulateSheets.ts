import { channelCount } from '@melto/core/device/process';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import type { MeasurementMode, StripPatches } from '@melto/core/device/instrument';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { createRandom, seedFrom } from '@melto/core/numerics/random';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import type { FrontEndFault } from '@melto/core/device/printPath';
import { applyToneCurves } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { deviceTruthSpectra } from './deviceTruth.ts';
import { simulatedDevice } from './devices.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import { createStripReader } from './instruments/stripReader.ts';
import { addReadingNoise } from './readingNoise.ts';
import { simulatedPrintPath } from './simulatedPrintPath.ts';

export type SimulatedFault =
  | { readonly kind: 'colour-management-on'; readonly conversion: string }
  | { readonly kind: 'front-end'; readonly does: FrontEndFault }
  | { readonly kind: 'strips-swapped' }
  | { readonly kind: 'strip-backwards' };

/** Mean ΔE00 of the accuracy noise of a single reading. */
export const ACCURACY_NOISE = 0.2;
const HOUR_MS = 3_600_000;

export interface SheetsToSimulate {
  readonly device: string;
  readonly stock: string;
  readonly printMode: string;
  readonly side: 'printing' | 'wrong';
  readonly seed: number;
  readonly mode: MeasurementMode;
  /** `accuracy`: the mean sheet with independent noise; `instrument`: variation, bias and repeatability. */
  readonly noise: 'instrument' | 'accuracy';
  readonly fault?: SimulatedFault;
  /** Curves that the front end is asked to apply, by channel. */
  readonly curves?: ToneCurves;
  /** Corrections of the zones across the width, by channel. */
  readonly zones?: readonly (readonly number[])[];
  /** Row-major patch × channel. */
  readonly values: Float64Array;
  readonly layout: ChartLayout;
}

/** Prints all pages of a chart, lets them rest for ten hours and reads them; spectra in the order of the patches. */
export function simulateSheets(request: SheetsToSimulate): { grid: SpectralGrid; spectra: Float64Array } {
  const bands = GRID_380_730_10.count;
  const { values, layout } = request;
  const device = simulatedDevice(request.device);
  const channels = channelCount(device.process);
  if (request.noise === 'accuracy') {
    const spectra = deviceTruthSpectra(
      device,
      request.stock as SimulatedStockId,
      request.printMode,
      request.curves === undefined ? values : applyToneCurves(request.curves, values),
      request.mode,
      request.side,
    );
    const random = createRandom(seedFrom('accuracy', request.seed));
    for (let at = 0; at < spectra.length; at += bands) addReadingNoise(spectra, at, ACCURACY_NOISE, random);
    return { grid: GRID_380_730_10, spectra };
  }
  const spectra = new Float64Array((values.length / channels) * bands);
  const reader = createStripReader('strip-reader-1', 'Strip reader 1');
  const pick = createRandom(seedFrom('fault', request.seed));
  layout.pages.forEach((strips, pageIndex) => {
    const printState = simulatedPrintPath.print({
      device: request.device,
      stock: request.stock,
      mode: request.printMode,
      process: device.process,
      timeMs: request.seed * HOUR_MS,
      sheetIndex: request.seed * 7 + pageIndex,
      seed: request.seed,
      side: request.side,
      conversion: request.fault?.kind === 'colour-management-on' ? request.fault.conversion : undefined,
      curves: request.curves,
      frontEnd: request.fault?.kind === 'front-end' ? request.fault.does : undefined,
      zones: request.zones,
    });
    const patchesOf = (index: number): StripPatches => ({
      device: gatherRows(values, strips[index], channels),
      page: pageIndex + 1,
      strip: index + 1,
      strips: strips.length,
    });
    const faulty = pick.below(strips.length);
    // A strip of another length would be noticed by its count of patches.
    const partner = strips.findIndex((rows, i) => i !== faulty && rows.length === strips[faulty].length);
    strips.forEach((rows, index) => {
      let taken = index;
      if (request.fault?.kind === 'strips-swapped' && partner >= 0)
        taken = index === faulty ? partner : index === partner ? faulty : index;
      const readMs = request.seed * HOUR_MS + 10 * HOUR_MS;
      const outcome = reader.readStrip({
        printState,
        patches: patchesOf(taken),
        mode: request.mode,
        attempt: `seed ${request.seed}`,
        timeMs: readMs,
        tileMs: readMs - HOUR_MS / 6,
        hand: request.fault?.kind === 'strip-backwards' && index === faulty ? 'backwards' : 'steady',
      });
      if (!outcome.ok) throw new Error(`a steady pass failed: ${outcome.failure}`);
      rows.forEach((row, place) =>
        spectra.set(outcome.spectra.subarray(place * bands, (place + 1) * bands), row * bands),
      );
    });
  });
  return { grid: GRID_380_730_10, spectra };
}
