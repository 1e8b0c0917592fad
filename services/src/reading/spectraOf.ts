import { COLOUR_RANGE, coversColours } from '@melto/core/spectral/coversColours';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { Problem } from '../kernel/problem.ts';
import type { PassInput } from './storePass.ts';

/** What an instrument gave, as values on a grid; refused where it does not fit the strip. */
export function spectraOf(
  { strip, startNm, stepNm, spectra }: Pick<PassInput, 'strip' | 'startNm' | 'stepNm' | 'spectra'>,
  patches: number,
): { readonly grid: SpectralGrid; readonly values: Float64Array } {
  if (spectra.length !== patches)
    throw new Problem(
      'bad-input',
      `The instrument gave ${spectra.length} patches; strip ${strip} has ${patches}.`,
      'Read it again, from the white before the first patch to the white after the last.',
      'spectra',
    );
  const [{ length: count }] = spectra;
  const grid = { startNm, stepNm, count };
  const { latestStartNm, earliestEndNm, widestStepNm } = COLOUR_RANGE;
  if (spectra.some((row) => row.length !== count) || !coversColours(grid))
    throw new Problem(
      'bad-input',
      `Spectra from ${startNm} nm in ${count} steps of ${stepNm} nm are not enough for colours.`,
      `They must reach from ${latestStartNm} to ${earliestEndNm} nm in steps of ${widestStepNm} nm or less.`,
      'spectra',
    );
  return { grid, values: Float64Array.from(spectra.flat()) };
}
