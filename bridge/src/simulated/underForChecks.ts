import { encodePrintState } from '@melto/simulator/printState';
import { encodeUnder } from '@melto/simulator/instruments/underInstrument';
import { RGB } from '@melto/core/device/process';

const HOUR_MS = 3_600_000;

/** A strip of greys that a simulated inkjet printed a day ago, with the tile read at `tileMs`. */
export function underForChecks(patches: number, tileMs = Date.now()): string {
  const printState = encodePrintState({
    ...{ device: 'wren', stock: 'quay-proof-200', mode: 'fine', process: RGB },
    ...{ timeMs: tileMs - 24 * HOUR_MS, sheetIndex: 1, seed: 5 },
  });
  const device = Float64Array.from(
    { length: 3 * patches },
    (_, i) => 1 - Math.floor(i / 3) / Math.max(1, patches - 1),
  );
  return encodeUnder({ printState, patches: { device, page: 1, strip: 1, strips: 1 }, tileMs });
}
