import { channelCount } from '@melto/core/device/process';
import type { MeasurementMode, StripPatches } from '@melto/core/device/instrument';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { applyToneCurves } from '@melto/core/tone/toneCurve';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import { changedInks, changedStock, isUneven } from './changes.ts';
import { simulatedDevice } from './devices.ts';
import type { PrintState } from './printState.ts';
import type { SimulatedDevice } from './simulatedDevice.ts';
import { SpectralPrinter } from './spectralPrinter.ts';
import { inkStateOf } from './variation.ts';

const BANDS = GRID_380_730_10.count;

/** True spectra of a strip as it lies on the sheet at the time of reading: drift, field and dry-back included. */
export function printedSpectra(
  state: PrintState,
  strip: StripPatches,
  mode: MeasurementMode,
  readMs: number,
): Float64Array {
  const device = simulatedDevice(state.device);
  const stock = changedStock(SIMULATED_STOCKS[state.stock as SimulatedStockId], state);
  const channels = channelCount(device.process);
  const count = strip.device.length / channels;
  const values = throughFrontEnd(device, state, strip.device);
  const out = new Float64Array(count * BANDS);
  // Where a device is even across its width, the ink state changes slowly: one printer for every few patches.
  const chunk = device.printer.evenness.length === 0 && !isUneven(state) ? 6 : 1;
  for (let from = 0; from < count; from += chunk) {
    const across = (from + chunk / 2) / Math.max(chunk, count);
    const steady = inkStateOf(device.printer, stock, {
      device: state.device,
      seed: state.seed,
      sheetIndex: state.sheetIndex,
      printedMs: state.printedMs,
      readMs,
      across,
      along: strip.strip / Math.max(1, strip.strips),
      zones: state.zones,
    });
    const inkState = changedInks(steady, state, across);
    const printer = new SpectralPrinter(device.printer, stock, mode, state.side, inkState);
    for (let i = from; i < Math.min(count, from + chunk); i++)
      printer.print(device.inks(values, i * channels, state.mode), out, i * BANDS);
  }
  return out;
}

/** Values as they reach the inks: a conversion that was left on, then the curves that are loaded. */
function throughFrontEnd(device: SimulatedDevice, state: PrintState, sent: Float64Array): Float64Array {
  const stock = state.stock as SimulatedStockId;
  const values =
    state.conversion === undefined ? sent : device.convert(state.conversion, stock, state.mode, sent);
  const curves =
    state.frontEnd === 'factory curves'
      ? device.factoryCurves?.(stock, state.mode)
      : state.frontEnd === 'no curves'
        ? undefined
        : state.curves?.map((curve) => Float64Array.from(curve));
  return curves === undefined ? values : applyToneCurves(curves, values);
}
