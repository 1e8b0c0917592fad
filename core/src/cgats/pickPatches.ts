import { channelCount } from '../device/process.ts';
import { gatherRows } from '../numerics/gatherRows.ts';
import type { PatchSet } from './patchSet.ts';

/** Certain patches of a set, in the order of their rows; where they stand on paper is not carried. */
export function pickPatches(set: PatchSet, rows: readonly number[]): PatchSet {
  const pick = (values: Float64Array | undefined, width: number): Float64Array | undefined =>
    values === undefined ? undefined : gatherRows(values, rows, width);
  const { spectra } = set;
  return {
    ...set,
    ids: rows.map((row) => set.ids[row]),
    names: set.names === undefined ? undefined : rows.map((row) => set.names?.[row] ?? ''),
    device: set.process === undefined ? undefined : pick(set.device, channelCount(set.process)),
    xyz: pick(set.xyz, 3),
    lab: pick(set.lab, 3),
    spectra:
      spectra === undefined
        ? undefined
        : { grid: spectra.grid, values: gatherRows(spectra.values, rows, spectra.grid.count) },
    layout: undefined,
  };
}
