import type { MeasurementMode } from '@melto/core/device/instrument';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import { WREN_PRINTER } from './inkPrinter.ts';
import { wrenInks } from './rgbDriver.ts';
import type { WrenMode } from './rgbDriver.ts';
import { MEAN_INK_STATE, SpectralPrinter } from './spectralPrinter.ts';
import type { InkState } from './spectralPrinter.ts';

const BANDS = GRID_380_730_10.count;
const WEIGHTS = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

/** Noise-free spectra of the mean, settled sheet: the ground truth that accuracy figures are held against. */
export function wrenTruthSpectra(
  stock: SimulatedStockId,
  mode: WrenMode,
  rgb: ArrayLike<number>,
  measurement: MeasurementMode = 'M1',
  side: 'printing' | 'wrong' = 'printing',
  state: InkState = MEAN_INK_STATE,
): Float64Array {
  const printer = new SpectralPrinter(WREN_PRINTER, SIMULATED_STOCKS[stock], measurement, side, state);
  const count = rgb.length / 3;
  const out = new Float64Array(count * BANDS);
  for (let i = 0; i < count; i++)
    printer.print(wrenInks([rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]], mode), out, i * BANDS);
  return out;
}

/** XYZ (D50/2°, Y = 100) of `wrenTruthSpectra`. */
export function wrenTruthXyz(stock: SimulatedStockId, mode: WrenMode, rgb: ArrayLike<number>): Float64Array {
  const out = new Float64Array(rgb.length);
  spectraToXyz(WEIGHTS, wrenTruthSpectra(stock, mode, rgb), out);
  return out;
}
