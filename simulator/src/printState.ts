import type { FrontEndFault, PrintRequest, SimulatedChange } from '@melto/core/device/printPath';

/** What the simulator remembers of a printed sheet; stored as text that nobody else reads. */
export interface PrintState {
  readonly version: 1;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly printedMs: number;
  readonly sheetIndex: number;
  readonly seed: number;
  readonly side: 'printing' | 'wrong';
  readonly conversion?: string;
  /** Curves that were loaded into the front end, by channel. */
  readonly curves?: readonly (readonly number[])[];
  /** What the front end applied in truth, where it was not what was asked for. */
  readonly frontEnd?: FrontEndFault;
  /** Corrections of the zones across the width, by channel. */
  readonly zones?: readonly (readonly number[])[];
  /** What has changed at the device and its stock. */
  readonly changes?: readonly SimulatedChange[];
}

export function encodePrintState(request: PrintRequest): string {
  const happened = (request.changes ?? []).filter(({ fromMs }) => request.timeMs >= fromMs);
  const state: PrintState = {
    version: 1,
    device: request.device,
    stock: request.stock,
    mode: request.mode,
    printedMs: request.timeMs,
    sheetIndex: request.sheetIndex,
    seed: request.seed,
    side: request.side ?? 'printing',
    conversion: request.conversion,
    curves: request.curves?.map((curve) => Array.from(curve, (value) => Math.round(value * 1e6) / 1e6)),
    frontEnd: request.frontEnd,
    zones: request.zones,
    // Only what has happened: a change to come leaves no trace on the sheet.
    changes: happened.length === 0 ? undefined : happened,
  };
  return JSON.stringify(state);
}

export function decodePrintState(text: string): PrintState {
  const state = JSON.parse(text) as PrintState;
  if (state.version !== 1) throw new RangeError(`print state of version ${String(state.version)}`);
  return state;
}
