import { RGB } from '@melto/core/device/process';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { SimulatedStockId } from './data/stocks.ts';
import { deviceTruthSpectra, deviceTruthXyz } from './deviceTruth.ts';
import type { InkSource } from './deviceTruth.ts';
import { WREN_PRINTER } from './inkPrinter.ts';
import { wrenInks } from './rgbDriver.ts';
import type { WrenMode } from './rgbDriver.ts';

/** Wren as far as its truth goes; its conversions are made from it. */
export const WREN_INKS: InkSource = {
  process: RGB,
  printer: WREN_PRINTER,
  inks: (values, at, mode) => wrenInks([values[at], values[at + 1], values[at + 2]], mode as WrenMode),
};

/** Noise-free spectra of Wren's mean, settled sheet; see `deviceTruthSpectra`. */
export function wrenTruthSpectra(
  stock: SimulatedStockId,
  mode: WrenMode,
  rgb: ArrayLike<number>,
  measurement: MeasurementMode = 'M1',
  side: 'printing' | 'wrong' = 'printing',
): Float64Array {
  return deviceTruthSpectra(WREN_INKS, stock, mode, rgb, measurement, side);
}

/** XYZ (D50/2°, Y = 100) of `wrenTruthSpectra`. */
export function wrenTruthXyz(stock: SimulatedStockId, mode: WrenMode, rgb: ArrayLike<number>): Float64Array {
  return deviceTruthXyz(WREN_INKS, stock, mode, rgb);
}
