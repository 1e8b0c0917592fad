import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { createRandom } from '@melto/core/numerics/random';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { printTable } from './table.ts';

async function milliseconds(work: () => unknown): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

export async function speed(): Promise<void> {
  const random = createRandom(1);
  const patches = 6000;
  const text = writeCgats(
    patchSetToCgats({
      ids: Array.from({ length: patches }, (_, i) => String(i + 1)),
      space: 'rgb',
      device: Float64Array.from({ length: patches * 3 }, () => random.uniform()),
      spectra: {
        grid: { startNm: 380, stepNm: 10, count: 36 },
        values: Float64Array.from({ length: patches * 36 }, () => random.uniform()),
      },
      conditions: {},
      notes: [],
    }),
  );
  readPatchSet(text);
  const { device } = makeRgbChart(3000, 1);
  const xyz = wrenTruthXyz('quay-proof-200', 'fine', device);
  printTable(
    'Speed, one core',
    ['what', 'ms'],
    [
      ['CGATS of 6,000 × 36 read', await milliseconds(() => readPatchSet(text))],
      ['chart of 3,000 patches', await milliseconds(() => makeRgbChart(3000, 2))],
      ['layout of 3,000 patches', await milliseconds(() => layoutChart('rgb', device, 'a4', 2))],
      ['model of 3,000 patches', await milliseconds(() => fitRgbModel(device, xyz))],
    ],
  );
}
