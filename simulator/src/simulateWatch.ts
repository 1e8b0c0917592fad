import { CMYK } from '@melto/core/device/process';
import { controlWedge } from '@melto/core/charts/controlWedge';
import { layoutInOrder } from '@melto/core/charts/layoutCopies';
import { placesAcross } from '@melto/core/charts/placesAcross';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import type { SimulatedChange } from '@melto/core/device/printPath';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { unwrap } from '@melto/core/result';
import { watchFigures } from '@melto/core/watch/watchFigures';
import { createStripReader } from './instruments/stripReader.ts';
import { simulatedPrintPath } from './simulatedPrintPath.ts';

const HOUR_MS = 3_600_000;
const WEIGHTS = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');
const WEDGE = controlWedge('watch');
const LAYOUT = layoutInOrder(WEDGE.names.length, 'a4', READER_NEEDS.strip);
const ACROSS = placesAcross(LAYOUT);

export interface WatchToSimulate {
  readonly device: string;
  readonly stock: string;
  readonly printMode: string;
  readonly seed: number;
  /** Domain time of the first check, and between checks. */
  readonly firstMs: number;
  readonly everyMs: number;
  readonly checks: number;
  readonly changes: readonly SimulatedChange[];
}

/** Prints the watch wedge again and again, reads each sheet after its rest, and gives the figures of the checks. */
export function simulateWatch(watch: WatchToSimulate): Float64Array[] {
  const reader = createStripReader('strip-reader-2', 'Strip reader 2');
  const bias = watch.changes.find(({ kind }) => kind === 'instrument');
  const strips = LAYOUT.pages[0];
  return Array.from({ length: watch.checks }, (_, check) => {
    const printedMs = watch.firstMs + check * watch.everyMs;
    const printState = simulatedPrintPath.print({
      device: watch.device,
      stock: watch.stock,
      mode: watch.printMode,
      process: CMYK,
      timeMs: printedMs,
      sheetIndex: 10 * (check + 1),
      seed: watch.seed,
      changes: watch.changes.filter(({ kind }) => kind !== 'instrument'),
    });
    const readMs = printedMs + 4 * HOUR_MS;
    const xyz = new Float64Array(WEDGE.names.length * 3);
    strips.forEach((rows, index) => {
      const pass = reader.readStrip({
        printState,
        patches: {
          device: gatherRows(WEDGE.device, rows, 4),
          page: 1,
          strip: index + 1,
          strips: strips.length,
        },
        mode: 'M1',
        attempt: `watch ${check}`,
        timeMs: readMs,
        tileMs: readMs - 0.2 * HOUR_MS,
        biasFromMs: bias?.fromMs,
      });
      if (!pass.ok) throw new Error(`check ${check}: ${pass.failure}`);
      const strip = new Float64Array(rows.length * 3);
      spectraToXyz(WEIGHTS, pass.spectra, strip);
      rows.forEach((row, place) => xyz.set(strip.subarray(3 * place, 3 * place + 3), 3 * row));
    });
    return unwrap(watchFigures(WEDGE.device, xyz, ACROSS));
  });
}
