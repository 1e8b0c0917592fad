import type { MeasurementMode, StripPatches } from '@melto/core/device/instrument';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import type { PrintState } from './printState.ts';
import { wrenInks } from './rgbDriver.ts';
import type { WrenMode } from './rgbDriver.ts';
import { SpectralPrinter } from './spectralPrinter.ts';
import { inkStateOf } from './variation.ts';
import { convertForWren } from './wrenConversions.ts';

/** True spectra of a strip as it lies on the sheet at the time of reading: drift, field and dry-back included. */
export function printedSpectra(
  state: PrintState,
  strip: StripPatches,
  mode: MeasurementMode,
  readMs: number,
): Float64Array {
  const stock = SIMULATED_STOCKS[state.stock as SimulatedStockId];
  const wrenMode = state.mode as WrenMode;
  const count = strip.device.length / 3;
  const rgb =
    state.conversion === undefined
      ? strip.device
      : convertForWren(state.conversion, stock.id, wrenMode, strip.device);
  const out = new Float64Array(count * GRID_380_730_10.count);
  // The ink state changes slowly along a strip: one printer for every few patches.
  const chunk = 6;
  for (let from = 0; from < count; from += chunk) {
    const inkState = inkStateOf(stock, {
      device: state.device,
      seed: state.seed,
      sheetIndex: state.sheetIndex,
      printedMs: state.printedMs,
      readMs,
      across: (from + chunk / 2) / Math.max(chunk, count),
      along: strip.strip / Math.max(1, strip.strips),
    });
    const printer = new SpectralPrinter(stock, mode, state.side, inkState);
    for (let i = from; i < Math.min(count, from + chunk); i++)
      printer.print(
        wrenInks([rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]], wrenMode),
        out,
        i * GRID_380_730_10.count,
      );
  }
  return out;
}
