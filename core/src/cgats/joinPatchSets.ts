import { patchXyz } from './patchColours.ts';
import type { PatchSet } from './patchSet.ts';

/**
 * One set of the patches of several readings of one device: spectra where all have the same bands, else XYZ.
 * Ids of later sets follow those of the first.
 */
export function joinPatchSets(sets: readonly PatchSet[]): PatchSet {
  const [first, ...rest] = sets;
  if (rest.length === 0) return first;
  const grid = first.spectra?.grid;
  const alike =
    grid !== undefined &&
    rest.every(
      ({ spectra }) =>
        spectra !== undefined &&
        spectra.grid.startNm === grid.startNm &&
        spectra.grid.stepNm === grid.stepNm &&
        spectra.grid.count === grid.count,
    );
  const joined = (of: (set: PatchSet) => Float64Array | undefined): Float64Array | undefined => {
    const parts = sets.map(of);
    return parts.every((part) => part !== undefined)
      ? Float64Array.from(parts.flatMap((part) => [...part]))
      : undefined;
  };
  return {
    ...first,
    ids: sets.flatMap(({ ids }) => ids).map((_, i) => String(i + 1)),
    names: sets.flatMap((set) => set.names ?? set.ids.map(() => '')),
    device: joined(({ device }) => device),
    spectra: alike
      ? { grid, values: joined(({ spectra }) => spectra?.values) ?? new Float64Array(0) }
      : undefined,
    xyz: alike ? undefined : joined(patchXyz),
    lab: undefined,
    layout: undefined,
    notes: sets.flatMap(({ notes }) => notes),
  };
}
