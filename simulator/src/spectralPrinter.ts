import type { MeasurementMode } from '@melto/core/device/instrument';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import type { InkShape } from './data/inks.ts';
import type { SimulatedStock } from './data/stocks.ts';
import { stockOn } from './inkPrinter.ts';
import type { InkPrinterData } from './inkPrinter.ts';
import { brightenerEmission, stockReflectance } from './stockSpectrum.ts';

const WAVELENGTHS = gridWavelengths(GRID_380_730_10);
const BANDS = WAVELENGTHS.length;
const INKS = ['C', 'M', 'Y', 'K'] as const;

/** How one sheet departs from the mean: factors on ink density and shifts of effective area, by ink. */
export interface InkState {
  readonly density: readonly number[];
  readonly area: readonly number[];
}

export const MEAN_INK_STATE: InkState = { density: [1, 1, 1, 1], area: [0, 0, 0, 0] };

/** Four inks on one stock: Neugebauer mixing with bumpy, wavelength dependent tone curves and bleeding overprints. */
export class SpectralPrinter {
  readonly #primaries: Float64Array[];
  readonly #stock: Float64Array;
  readonly #emission: Float64Array;
  readonly #surface: number;
  private readonly stock: SimulatedStock & { readonly strength: readonly number[] };

  constructor(
    private readonly printer: InkPrinterData,
    bareStock: SimulatedStock,
    mode: MeasurementMode,
    side: 'printing' | 'wrong',
    private readonly state: InkState,
  ) {
    const stock = stockOn(printer, bareStock);
    this.stock = stock;
    this.#stock = stockReflectance(stock);
    this.#emission = brightenerEmission(stock, mode);
    this.#surface = mode === 'M3' ? stock.surface * 0.3 : stock.surface;
    const dmax = side === 'wrong' ? stock.dmaxWrongSide : stock.dmax;
    const strength = side === 'wrong' ? 0.62 : 1;
    this.#primaries = Array.from({ length: 16 }, (_, mask) => this.#primary(mask, dmax, strength));
  }

  /** Reflectance factor^(1/n) of one Neugebauer primary. */
  #primary(mask: number, dmax: number, strength: number): Float64Array {
    const present = [0, 1, 2, 3].filter((ink) => (mask >> ink) & 1);
    const ceiling = dmax - 0.02;
    const solids = solidDensities(this.printer);
    return Float64Array.from(WAVELENGTHS, (_, band) => {
      let density = 0;
      present.forEach((ink, order) => {
        const under = order;
        const effect =
          (1 - this.printer.trapping[ink] * under) *
          this.state.density[ink] *
          strength *
          this.stock.strength[ink];
        density += effect * solids[ink][band];
      });
      // Heavy overprints bleed: the absorption spreads a little to all bands, and saturates at the stock's limit.
      const heavy = Math.max(0, present.length - 2);
      density += this.printer.bleeding * heavy * 0.5;
      const limited = ceiling * (1 - Math.exp(-density / ceiling - 0.18 * (density / ceiling) ** 3));
      const r = this.#stock[band] * 10 ** -limited;
      return Math.pow(r, 1 / this.stock.n);
    });
  }

  /** Reflectance factors of ink amounts (C, M, Y, K in 0..1), 36 bands, into `out` from `at` on. */
  print(inks: readonly number[], out: Float64Array, at: number): void {
    const { n, gain } = this.stock;
    const total = inks[0] + inks[1] + inks[2] + inks[3];
    let uv = 1;
    for (let ink = 0; ink < 4; ink++) {
      const shape: InkShape = this.printer.inks[INKS[ink]];
      uv *= 1 - shape.uvAbsorption * Math.min(1, inks[ink] * 1.15);
    }
    const area = [0, 0, 0, 0];
    for (let band = 0; band < BANDS; band++) {
      const along = band / (BANDS - 1) - 0.5;
      for (let ink = 0; ink < 4; ink++) {
        const t = inks[ink];
        const others = Math.min(1.6, total - t) / 1.6;
        const g =
          (gain[ink] * (1 + this.printer.gainSlope[ink] * along) + this.state.area[ink]) *
          (1 + this.printer.gainByOthers * others);
        let a = t + 4 * g * t * (1 - t);
        for (const [centre, width, size, slope] of this.printer.bumps[ink])
          a += size * (1 + slope * along) * Math.exp(-0.5 * ((t - centre) / width) ** 2) * 4 * t * (1 - t);
        area[ink] = Math.min(1, Math.max(0, a));
      }
      const [c, m, y, k] = area;
      // Dots of C and M fall on each other a little more often than chance has it.
      const overlap = 0.12 * c * (1 - c) * m * (1 - m);
      const cm = [(1 - c) * (1 - m) + overlap, c * (1 - m) - overlap, (1 - c) * m - overlap, c * m + overlap];
      let sum = 0;
      for (let mask = 0; mask < 16; mask++) {
        const weight = cm[mask & 3] * ((mask >> 2) & 1 ? y : 1 - y) * ((mask >> 3) & 1 ? k : 1 - k);
        sum += weight * this.#primaries[mask][band];
      }
      const r = Math.pow(Math.max(0, sum), n);
      const emission = this.#emission[band] * uv * Math.sqrt(r / this.#stock[band]);
      out[at + band] = r + emission + this.#surface * (1 - r);
    }
  }
}

const solidsByPrinter = new WeakMap<InkPrinterData, Float64Array[]>();

/** Densities of the solids over the bands, by ink; the same for all sheets. */
function solidDensities(printer: InkPrinterData): Float64Array[] {
  let found = solidsByPrinter.get(printer);
  if (found === undefined) {
    found = INKS.map((ink) => Float64Array.from(WAVELENGTHS, (nm) => inkDensity(printer.inks[ink], nm)));
    solidsByPrinter.set(printer, found);
  }
  return found;
}

function inkDensity(shape: InkShape, nm: number): number {
  let density = 0;
  for (const [peak, width, size] of shape.bands)
    density += size * Math.exp(-0.5 * ((nm - peak) / width) ** 2);
  return density;
}
