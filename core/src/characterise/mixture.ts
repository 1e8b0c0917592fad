/** Shares of the solids where inks cover areas at random (Demichel). */
export function mixtureWeights(areas: Float64Array, inks: number, out: Float64Array): void {
  out[0] = 1;
  for (let ink = 0, filled = 1; ink < inks; ink++, filled <<= 1)
    for (let p = 0; p < filled; p++) {
      out[p + filled] = out[p] * areas[ink];
      out[p] *= 1 - areas[ink];
    }
}

/** Derivative of the mixture with the area of one ink: ink by ink, each of which halves the table of solids; those that are not printed cost nothing. */
export function mixtureSlope(
  areas: Float64Array,
  inks: number,
  which: number,
  solids: Float64Array,
  folded: Float64Array,
): number {
  // The wanted ink comes to lie last, as the difference of its two halves.
  let size = solids.length;
  folded.set(solids);
  for (let ink = inks - 1; ink > which; ink--) {
    size >>= 1;
    const area = areas[ink];
    if (area !== 0) for (let p = 0; p < size; p++) folded[p] += area * (folded[p + size] - folded[p]);
  }
  size >>= 1;
  for (let p = 0; p < size; p++) folded[p] = folded[p + size] - folded[p];
  for (let ink = which - 1; ink >= 0; ink--) {
    size >>= 1;
    const area = areas[ink];
    if (area !== 0) for (let p = 0; p < size; p++) folded[p] += area * (folded[p + size] - folded[p]);
  }
  return folded[0];
}
