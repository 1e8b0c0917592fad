import type { PatchSpectra } from '../cgats/patchSet.ts';

/** One band of all patches; NaN where a cell is empty. */
export interface Band {
  readonly nm: number;
  readonly values: Float64Array;
}

export type FoundSpectra =
  | { readonly ok: true; readonly spectra: PatchSpectra; readonly notes: readonly string[] }
  | { readonly ok: false; readonly why: string };

const LEAST_BANDS = 8;
/** Bands that may be missing inside, each between two that are there. */
const MOST_MISSING = 2;

/**
 * Bands as reflectance factors on an even grid. A single missing band between others is worked out from its four
 * neighbours (a cubic, exact to about 0.001 on printed colours at 10 nm) and said; any other gap is refused.
 */
export function spectraOfBands(bands: readonly Band[], rows: number): FoundSpectra {
  const sorted = [...bands].sort((a, b) => a.nm - b.nm);
  const steps = sorted.slice(1).map(({ nm }, i) => nm - sorted[i].nm);
  const step = Math.min(...steps);
  const told = sorted
    .slice(0, 4)
    .map(({ nm }) => `${nm} nm`)
    .join(', ');
  if (sorted.length < LEAST_BANDS || !(step > 0))
    return { ok: false, why: `at least ${LEAST_BANDS} bands at different wavelengths, found ${told}` };
  const missing: number[] = [];
  const complete: Band[] = [];
  for (const [i, band] of sorted.entries()) {
    if (i > 0) {
      const gap = band.nm - sorted[i - 1].nm;
      if (gap === 2 * step && i >= 2 && i + 1 < sorted.length) {
        missing.push(sorted[i - 1].nm + step);
        complete.push(between(sorted.slice(i - 2, i + 2), sorted[i - 1].nm + step, rows));
      } else if (gap !== step)
        return {
          ok: false,
          why: `bands at regular wavelengths, found ${sorted[i - 1].nm} nm, then ${band.nm} nm`,
        };
    }
    complete.push(band);
  }
  if (missing.length > MOST_MISSING)
    return {
      ok: false,
      why: `at most ${MOST_MISSING} missing bands, found none at ${missing.join(', ')} nm`,
    };
  let most = 0;
  for (const { values } of complete) for (const value of values) if (value > most) most = value;
  // Paper reflects more than 3 % in any light, and no print more than three times a perfect diffuser.
  const scale = most > 3 ? 0.01 : 1;
  if (most * scale > 3) return { ok: false, why: `reflectance factors, found ${most}` };
  const notes: string[] = [];
  if (scale !== 1) notes.push('Spectra stand in per cent and were divided by 100.');
  if (missing.length > 0)
    notes.push(`The band at ${missing.join(' and ')} nm is missing; it was worked out from its neighbours.`);
  const values = new Float64Array(rows * complete.length);
  complete.forEach((band, b) =>
    band.values.forEach((value, row) => (values[row * complete.length + b] = value * scale)),
  );
  return {
    ok: true,
    notes,
    spectra: { grid: { startNm: complete[0].nm, stepNm: step, count: complete.length }, values },
  };
}

/** The cubic through four bands, at a wavelength between the middle ones. */
function between(four: readonly Band[], nm: number, rows: number): Band {
  const weights = four.map(({ nm: own }) =>
    four.reduce(
      (product, { nm: other }) => (other === own ? product : (product * (nm - other)) / (own - other)),
      1,
    ),
  );
  const values = new Float64Array(rows);
  for (let row = 0; row < rows; row++)
    values[row] = four.reduce((sum, band, i) => sum + weights[i] * band.values[row], 0);
  return { nm, values };
}
