import { CMYK } from '@melto/core/device/process';
import type { PatchView, ReadingView } from '@melto/services/reading/readingView';

const patch = (row: number, device: readonly number[], lab: readonly number[]): PatchView => ({
  row,
  id: String(row + 1),
  role: row === 0 ? 'paper' : 'ramp',
  device,
  lab,
  xyz: [20, 20, 20],
  spectrum: Array.from({ length: 36 }, (_, i) => 0.2 + row / 10 + i / 1000),
});

/** A CMYK reading of two strips with three patches each, on one page. */
export function readingView(change: Partial<ReadingView> = {}): ReadingView {
  return {
    ...{ id: 9, code: 'HRN-0001', title: 'Ramps', purpose: 'ramps', serves: 'curves', conditionId: 4 },
    ...{ process: CMYK, mode: 'M1', instrument: 'Strip reader 2', startedMs: 0, finishedMs: 1 },
    ...{ withdrawnMs: null, early: false, faults: [], dmax: 1.62, paper: [95, 0, -2] },
    repeatability: null,
    grid: { startNm: 380, stepNm: 10, count: 36 },
    pages: [
      [
        [0, 1, 2],
        [3, 4, 5],
      ],
    ],
    patches: [
      patch(0, [0, 0, 0, 0], [95, 0, -2]),
      patch(1, [50, 0, 0, 0], [75, -20, -25]),
      patch(2, [100, 0, 0, 0], [55, -37, -50]),
      patch(3, [0, 0, 0, 100], [16, 0, 0]),
      patch(4, [0, 50, 0, 0], [70, 38, -5]),
      patch(5, [0, 100, 0, 0], [48, 74, -3]),
    ],
    ...change,
  } as ReadingView;
}
