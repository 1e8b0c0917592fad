import type { MeasurementMode } from '@melto/core/device/instrument';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import type { InkShape } from './data/inks.ts';
import type { SimulatedStock } from './data/stocks.ts';
import { inkShapes, stockOn } from './inkPrinter.ts';
import type { InkPrinterData, StockOnPrinter } from './inkPrinter.ts';
import { brightenerEmission, stockReflectance } from './stockSpectrum.ts';

const WAVELENGTHS = gridWavelengths(GRID_380_730_10);
const BANDS = WAVELENGTHS.length;

/** How one sheet departs from the mean: factors on ink density and shifts of effective area, by ink. */
export interface InkState {
  readonly density: readonly number[];
  readonly area: readonly number[];
}

/** The state of the mean sheet of a printer. */
export function meanInkState(printer: InkPrinterData): InkState {
  const inks = inkShapes(printer);
  return { density: inks.map(() => 1), area: inks.map(() => 0) };
}

/** Inks on one stock: Neugebauer mixing with bumpy, wavelength dependent tone curves and bleeding overprints. */
export class SpectralPrinter {
  readonly #primaries: Float64Array[];
  readonly #stock: Float64Array;
  readonly #emission: Float64Array;
  readonly #surface: number;
  readonly #inks: readonly InkShape[];
  readonly #shares: Float64Array;
  readonly #area: Float64Array;
  private readonly stock: StockOnPrinter;

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
    this.#inks = inkShapes(printer);
    const inks = this.#inks.length;
    this.#primaries = Array.from({ length: 1 << inks }, (_, mask) => this.#primary(mask, dmax, strength));
    this.#shares = new Float64Array(1 << inks);
    this.#area = new Float64Array(inks);
  }

  /** Reflectance factor^(1/n) of one Neugebauer primary. */
  #primary(mask: number, dmax: number, strength: number): Float64Array {
    const present = [...this.#inks.keys()].filter((ink) => (mask >> ink) & 1);
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

  /** Reflectance factors of ink amounts (by channel, 0..1), 36 bands, into `out` from `at` on. */
  print(amounts: readonly number[], out: Float64Array, at: number): void {
    const { n, gain } = this.stock;
    const inks = this.#inks.length;
    const area = this.#area;
    let total = 0;
    let uv = 1;
    for (let ink = 0; ink < inks; ink++) {
      total += amounts[ink];
      uv *= 1 - this.#inks[ink].uvAbsorption * Math.min(1, amounts[ink] * 1.15);
    }
    for (let band = 0; band < BANDS; band++) {
      const along = band / (BANDS - 1) - 0.5;
      for (let ink = 0; ink < inks; ink++) {
        const t = amounts[ink];
        const others = Math.min(1.6, total - t) / 1.6;
        const g =
          (gain[ink] * (1 + this.printer.gainSlope[ink] * along) + this.state.area[ink]) *
          (1 + this.printer.gainByOthers * others);
        let a = t + 4 * g * t * (1 - t);
        for (const [centre, width, size, slope] of this.printer.bumps[ink])
          a += size * (1 + slope * along) * Math.exp(-0.5 * ((t - centre) / width) ** 2) * 4 * t * (1 - t);
        area[ink] = Math.min(1, Math.max(0, a));
      }
      const r = Math.pow(Math.max(0, this.#mixed(band)), n);
      const emission = this.#emission[band] * uv * Math.sqrt(r / this.#stock[band]);
      out[at + band] = r + emission + this.#surface * (1 - r);
    }
  }

  /** Reflectance factor^(1/n) of the areas that the inks cover now. */
  #mixed(band: number): number {
    const shares = this.#shares;
    const [c, m] = this.#area;
    // Dots of C and M fall on each other a little more often than chance has it.
    const overlap = 0.12 * c * (1 - c) * m * (1 - m);
    shares[0] = (1 - c) * (1 - m) + overlap;
    shares[1] = c * (1 - m) - overlap;
    shares[2] = (1 - c) * m - overlap;
    shares[3] = c * m + overlap;
    let filled = 4;
    for (let ink = 2; ink < this.#inks.length; ink++, filled <<= 1) {
      const a = this.#area[ink];
      for (let mask = 0; mask < filled; mask++) {
        shares[mask + filled] = shares[mask] * a;
        shares[mask] *= 1 - a;
      }
    }
    let sum = 0;
    for (let mask = 0; mask < filled; mask++)
      if (shares[mask] !== 0) sum += shares[mask] * this.#primaries[mask][band];
    return sum;
  }
}

const solidsByPrinter = new WeakMap<InkPrinterData, Float64Array[]>();

/** Densities of the solids over the bands, by ink; the same for all sheets. */
function solidDensities(printer: InkPrinterData): Float64Array[] {
  let found = solidsByPrinter.get(printer);
  if (found === undefined) {
    found = inkShapes(printer).map((ink) => Float64Array.from(WAVELENGTHS, (nm) => inkDensity(ink, nm)));
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
