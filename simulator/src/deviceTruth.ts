import { channelCount } from '@melto/core/device/process';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import type { SimulatedDevice } from './simulatedDevice.ts';
import { meanInkState, SpectralPrinter } from './spectralPrinter.ts';

const BANDS = GRID_380_730_10.count;
const WEIGHTS = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

/** The part of a device that its truth depends on. */
export type InkSource = Pick<SimulatedDevice, 'process' | 'printer' | 'inks'>;

/** Noise-free spectra of the mean, settled sheet without curves: the ground truth of accuracy figures. */
export function deviceTruthSpectra(
  device: InkSource,
  stock: SimulatedStockId,
  mode: string,
  values: ArrayLike<number>,
  measurement: MeasurementMode = 'M1',
  side: 'printing' | 'wrong' = 'printing',
): Float64Array {
  const printer = new SpectralPrinter(
    device.printer,
    SIMULATED_STOCKS[stock],
    measurement,
    side,
    meanInkState(device.printer),
  );
  const channels = channelCount(device.process);
  const count = values.length / channels;
  const out = new Float64Array(count * BANDS);
  for (let i = 0; i < count; i++) printer.print(device.inks(values, i * channels, mode), out, i * BANDS);
  return out;
}

/** XYZ (D50/2°, Y = 100) of `deviceTruthSpectra`. */
export function deviceTruthXyz(
  device: InkSource,
  stock: SimulatedStockId,
  mode: string,
  values: ArrayLike<number>,
): Float64Array {
  const spectra = deviceTruthSpectra(device, stock, mode, values);
  const out = new Float64Array((spectra.length / BANDS) * 3);
  spectraToXyz(WEIGHTS, spectra, out);
  return out;
}
