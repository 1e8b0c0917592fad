import type { PrintRequest } from '@melto/core/device/printPath';

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
}

export function encodePrintState(request: PrintRequest): string {
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
  };
  return JSON.stringify(state);
}

export function decodePrintState(text: string): PrintState {
  const state = JSON.parse(text) as PrintState;
  if (state.version !== 1) throw new RangeError(`print state of version ${String(state.version)}`);
  return state;
}
