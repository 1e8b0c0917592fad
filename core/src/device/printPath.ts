import type { Process } from './process.ts';

/** One page of a chart on its way to a device. */
export interface PrintRequest {
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly process: Process;
  /** Milliseconds of domain time. */
  readonly timeMs: number;
  /** Counts the sheets this device has printed. */
  readonly sheetIndex: number;
  readonly seed: number;
  readonly side?: 'printing' | 'wrong';
  /** A conversion left on by mistake, by its name in the device's own list. */
  readonly conversion?: string;
  /** Tone curves to load into the front end, by channel; none leaves it linear. */
  readonly curves?: readonly Float64Array[];
  /** A front end that does not do as it is told, for simulated devices. */
  readonly frontEnd?: FrontEndFault;
  /** Corrections of the zones across the width, by channel: shares of density to add. */
  readonly zones?: readonly (readonly number[])[];
  /** What has changed at a simulated device. */
  readonly changes?: readonly SimulatedChange[];
}

/** Something that is different at a simulated device, stock or instrument from a time on; real ones change by themselves. */
export interface SimulatedChange {
  readonly kind: ChangeKind;
  /** 0 C … 3 K, where an ink changes. */
  readonly ink: number;
  /** Milliseconds of domain time. */
  readonly fromMs: number;
}

export const CHANGE_KINDS = ['ink-lot', 'ageing-head', 'stock-lot', 'zone', 'instrument'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/** Its own curves are applied in place of those asked for, or none at all. */
export type FrontEndFault = 'factory curves' | 'no curves';

/** Something that prints: a driver of a real device or a simulated one. */
export interface PrintPath {
  /** Prints and returns the state of the sheet, opaque to all but the instrument that reads it. */
  print(request: PrintRequest): string;
}
