import type { Process } from '@melto/core/device/process';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import { SIMULATED_DEVICES } from './devices.ts';

/** What people may know of a simulated device: its name, channels, modes and stocks. */
export interface CatalogueDevice {
  readonly id: string;
  readonly name: string;
  /** Three letters of its sheet codes. */
  readonly code: string;
  readonly kind: string;
  readonly process: Process;
  readonly modes: readonly string[];
  readonly inkSet: string;
  readonly conversions: readonly string[];
  readonly stocks: readonly CatalogueStock[];
}

export interface CatalogueStock {
  readonly id: string;
  readonly name: string;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  /** Minutes a print should rest before it is read. */
  readonly restMinutes: number;
}

export const CATALOGUE: readonly CatalogueDevice[] = SIMULATED_DEVICES.map(
  ({ id, name, code, kind, process, modes, inkSet, conversions, stocks }) => ({
    id,
    name,
    code,
    kind,
    process,
    modes,
    inkSet,
    conversions,
    stocks: stocks.map((stock) => {
      const { name: stockName, finish, dryMinutes } = SIMULATED_STOCKS[stock];
      return { id: stock, name: stockName, finish, restMinutes: Math.ceil(dryMinutes * 5) };
    }),
  }),
);
