import type { InkShape } from './data/inks.ts';
import { PIGMENT_INKS } from './data/inks.ts';
import type { SimulatedStock } from './data/stocks.ts';
import { WREN } from './data/wren.ts';

/** A bump of a tone curve: centre, width, size, change of size from 380 to 730 nm. */
export type ToneBump = readonly [centre: number, width: number, size: number, slope: number];

/** How an ink's density departs from its mean across the width; `zones` holds 12 shares or none. */
export interface InkEvenness {
  readonly tilt: number;
  readonly bow: number;
  readonly zones: readonly number[];
}

/** What sets one simulated printer apart: lists are by ink, in the order of its channels. */
export interface InkPrinterData {
  /** By the names of its inks, in the order of its channels. */
  readonly inks: Readonly<Record<string, InkShape>>;
  readonly bumps: readonly (readonly ToneBump[])[];
  /** Loss of an ink's effect where others lie under it, and the spread where much ink lies. */
  readonly trapping: readonly number[];
  readonly bleeding: number;
  /** Change of gain where other inks are present. */
  readonly gainByOthers: number;
  /** Tone value increase varies along the spectrum by this share from 380 to 730 nm. */
  readonly gainSlope: readonly number[];
  readonly variation: {
    readonly sheet: number;
    readonly field: number;
    readonly drift: number;
    readonly autocorrelation: number;
  };
  /** Share of the stock's dry-back that its ink or toner shows. */
  readonly dryBack: number;
  readonly evenness: readonly InkEvenness[];
  /** What a stock is like on this printer, where it is not as on the inkjet. */
  readonly stocks: Readonly<
    Record<
      string,
      { readonly gain: readonly number[]; readonly dmax: number; readonly strength: readonly number[] }
    >
  >;
}

/** The inkjet's data in the same form; its driver is in `rgbDriver`. */
export const WREN_PRINTER: InkPrinterData = {
  inks: PIGMENT_INKS,
  bumps: WREN.bumps as unknown as InkPrinterData['bumps'],
  trapping: WREN.trapping,
  bleeding: WREN.bleeding,
  gainByOthers: WREN.gainByOthers,
  gainSlope: WREN.gainSlope,
  variation: WREN.variation,
  dryBack: 1,
  evenness: [],
  stocks: {},
};

/** The inks of a printer, in the order of its channels. */
export function inkShapes({ inks }: Pick<InkPrinterData, 'inks'>): readonly InkShape[] {
  return Object.values(inks);
}

/** A stock as a printer meets it: gain and strength of each of its inks. */
export interface StockOnPrinter extends Omit<SimulatedStock, 'gain'> {
  readonly gain: readonly number[];
  readonly strength: readonly number[];
}

/** The stock as this printer meets it. */
export function stockOn(printer: InkPrinterData, stock: SimulatedStock): StockOnPrinter {
  const own = printer.stocks[stock.id];
  if (own === undefined) return { ...stock, strength: inkShapes(printer).map(() => 1) };
  return { ...stock, gain: own.gain, dmax: own.dmax, strength: own.strength };
}

/** Share by which an ink is denser at a place across the width, 0..1, its mean over the width being zero. */
export function evennessAt(evenness: InkEvenness | undefined, across: number): number {
  if (evenness === undefined) return 0;
  const x = Math.min(1, Math.max(0, across)) - 0.5;
  let share = evenness.tilt * x + evenness.bow * (x * x - 1 / 12);
  const { zones } = evenness;
  if (zones.length > 0) {
    // Ink spreads sideways: between the middles of two zones the keys blend.
    const at = Math.min(zones.length - 1, Math.max(0, (x + 0.5) * zones.length - 0.5));
    const low = Math.min(zones.length - 2, Math.floor(at));
    const mean = zones.reduce((sum, value) => sum + value, 0) / zones.length;
    share += zones[low] + (at - low) * (zones[low + 1] - zones[low]) - mean;
  }
  return share;
}
