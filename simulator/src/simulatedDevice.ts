import type { Process } from '@melto/core/device/process';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { SimulatedStockId } from './data/stocks.ts';
import type { InkPrinterData } from './inkPrinter.ts';

/** A simulated device: its printer, its driver or front end, and what it may be told. */
export interface SimulatedDevice {
  readonly id: string;
  readonly name: string;
  /** Three letters of its sheet codes. */
  readonly code: string;
  readonly kind: string;
  readonly process: Process;
  readonly inkSet: string;
  readonly printer: InkPrinterData;
  readonly modes: readonly string[];
  readonly stocks: readonly SimulatedStockId[];
  readonly conversions: readonly string[];
  /** Device value, 0..1 a channel, to amounts of the printer's inks. */
  inks(values: ArrayLike<number>, at: number, mode: string): readonly number[];
  /** What colour management makes of chart values when it was left on; row-major × channels. */
  convert(name: string, stock: SimulatedStockId, mode: string, values: Float64Array): Float64Array;
  /** Curves that its front end was delivered with; none for an RGB driver. */
  factoryCurves?(stock: SimulatedStockId, mode: string): ToneCurves;
}
