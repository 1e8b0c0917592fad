import { patchSetToCgats } from '../cgats/patchSetToCgats.ts';
import type { PatchSpectra } from '../cgats/patchSet.ts';
import { writeCgats } from '../cgats/writeCgats.ts';
import type { ListedColour } from '../refine/namedColour.ts';
import { sameGrid } from '../spectral/spectralGrid.ts';

/** A colour list as CGATS: names and Lab, and spectra where all of its colours have them over the same wavelengths. */
export function listText(title: string, colours: readonly ListedColour[]): string {
  return writeCgats(
    patchSetToCgats({
      ids: colours.map((_, i) => String(i + 1)),
      names: colours.map(({ name }) => name),
      lab: Float64Array.from(colours.flatMap(({ lab }) => [...lab])),
      spectra: spectraOf(colours),
      conditions: { illuminant: 'D50', observer: '2' },
      title,
      originator: 'Melto',
      notes: [],
    }),
  );
}

function spectraOf(colours: readonly ListedColour[]): PatchSpectra | undefined {
  const grid = colours[0]?.spectrum?.grid;
  if (grid === undefined) return undefined;
  const values: number[] = [];
  for (const { spectrum } of colours) {
    if (spectrum === undefined || !sameGrid(spectrum.grid, grid)) return undefined;
    values.push(...spectrum.values);
  }
  return { grid, values: Float64Array.from(values) };
}
