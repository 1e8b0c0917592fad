import type { PatchSpectra } from '../cgats/patchSet.ts';

/** An instrument's triangular bandpass as wide as its interval smooths a spectrum by a twelfth of its curvature. */
const SHARE = 1 / 12;

/**
 * Spectra with the bandpass of their instrument taken out, where it is a triangle as wide at half height as the
 * interval of the bands (ASTM E2729): each band by its two neighbours, the first and the last by their one. Only for
 * spectra that are not corrected yet, which files seldom tell.
 * @throws RangeError for fewer than three bands.
 */
export function bandpassCorrected({ grid, values }: PatchSpectra): PatchSpectra {
  const { count } = grid;
  if (count < 3) throw new RangeError(`${count} bands, expected at least 3`);
  const out = new Float64Array(values.length);
  for (let start = 0; start + count <= values.length; start += count)
    for (let band = 0; band < count; band++) {
      const own = values[start + band];
      const before = band > 0 ? values[start + band - 1] : own;
      const after = band < count - 1 ? values[start + band + 1] : own;
      out[start + band] = own - SHARE * (before - 2 * own + after);
    }
  return { grid, values: out };
}
