import type { MeasurementMode } from '@melto/core/device/instrument';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import type { SimulatedStock } from './data/stocks.ts';

const WAVELENGTHS = gridWavelengths(GRID_380_730_10);

/** Ultraviolet content of each measurement mode relative to M1 (D50-like). */
const UV_CONTENT: Readonly<Record<MeasurementMode, number>> = { M0: 0.62, M1: 1, M2: 0, M3: 0 };

/** Reflectance factor of the bare stock without brightener, 36 bands; the four nodes joined by a rising exponential and lines. */
export function stockReflectance(stock: Omit<SimulatedStock, 'gain'>): Float64Array {
  const [uv, blue, green, red] = stock.base;
  return Float64Array.from(WAVELENGTHS, (nm) => {
    const plateau =
      nm < 550 ? blue + ((nm - 430) / 120) * (green - blue) : green + ((nm - 550) / 180) * (red - green);
    return plateau - (blue - uv) * Math.exp(-(nm - 380) / 14);
  });
}

/** Emission of the brightener as a reflectance factor over 36 bands, all ultraviolet light reaching it. */
export function brightenerEmission(stock: Omit<SimulatedStock, 'gain'>, mode: MeasurementMode): Float64Array {
  const size = stock.brightener * UV_CONTENT[mode];
  return Float64Array.from(WAVELENGTHS, (nm) => {
    const width = nm < 438 ? 13 : 26;
    return size * Math.exp(-0.5 * ((nm - 438) / width) ** 2);
  });
}
