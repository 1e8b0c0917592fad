/** A chart may go over the total ink limit by this much, so that the limit itself lies inside. */
export const OVER_LIMIT = 0.1;

/**
 * The share of full ink, 0..1, that the chromatic inks of an overprint are brought down to where it is beyond the limit;
 * black stays full.
 * @param inks that print, @param blacks among them. @param totalInk limit of the sum, 1 = 100 %.
 */
export function overprintShare(inks: number, blacks: number, totalInk: number): number {
  const chromatic = inks - blacks;
  return inks > totalInk + OVER_LIMIT && chromatic > 0 ? Math.max(0, (totalInk - blacks) / chromatic) : 1;
}
