import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import { WREN } from './data/wren.ts';
import { WREN_CONVERSIONS } from './wrenConversions.ts';

/** What people may know of a simulated device: its name, channels, modes and stocks. */
export interface CatalogueDevice {
  readonly id: string;
  readonly name: string;
  /** Three letters of its sheet codes. */
  readonly code: string;
  readonly kind: string;
  readonly space: DeviceSpace;
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

export const CATALOGUE: readonly CatalogueDevice[] = [
  {
    id: 'wren',
    name: 'Wren',
    code: 'WRN',
    kind: 'pigment inkjet with an RGB driver',
    space: 'rgb',
    modes: Object.keys(WREN.modes),
    inkSet: 'Pigment four',
    conversions: Object.keys(WREN_CONVERSIONS),
    stocks: Object.values(SIMULATED_STOCKS).map(({ id, name, finish, dryMinutes }) => ({
      id,
      name,
      finish,
      restMinutes: Math.ceil(dryMinutes * 5),
    })),
  },
];
