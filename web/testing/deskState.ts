import type { DeskState } from '@melto/services/reading/desk';

/** A sheet of three strips on the desk, tile fresh, nothing read. */
export function deskState(change: Partial<DeskState> = {}, read: readonly number[] = []): DeskState {
  return {
    code: 'HRN-0001-1',
    title: 'Ramps',
    purpose: 'ramps',
    job: null,
    conditionId: 4,
    conditionName: 'Heron / Lantern Gloss 150 / standard',
    page: 1,
    pages: 1,
    openSheets: [],
    printedMs: 0,
    restUntilMs: 1000,
    nowMs: 10_000,
    offsetMs: 0,
    onRack: true,
    readingId: read.length > 0 ? 9 : null,
    mode: 'M1',
    readBy: null,
    reader: 'strip',
    simulated: true,
    marked: [],
    strips: [1, 2, 3].map((strip) => ({
      strip,
      expected: ['#808080', '#404040'],
      measured: read.includes(strip) ? ['#818181', '#414141'] : null,
      partly: null,
      reversed: false,
      readMs: read.includes(strip) ? 9000 : null,
    })),
    faults: [],
    judging: false,
    judgeProblem: null,
    resultId: null,
    ...change,
  };
}
