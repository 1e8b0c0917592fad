/** Spectra that stand one after the other, row-major patch × band, as one list of `bands` values per patch. */
export function spectraRows(spectra: Float64Array, bands: number): number[][] {
  return Array.from({ length: spectra.length / bands }, (_, patch) => [
    ...spectra.subarray(patch * bands, (patch + 1) * bands),
  ]);
}
