/**
 * Picks `count` of the candidates so that each is as far as possible from those picked before and from `taken`.
 * @param candidates row-major × dimensions.
 * @param taken row-major × dimensions; may be empty.
 * @returns indices of candidates in the order of picking; fewer where candidates run out.
 */
export function farthestPoints(
  candidates: Float64Array,
  taken: Float64Array,
  dimensions: number,
  count: number,
): number[] {
  const total = candidates.length / dimensions;
  const nearest = new Float64Array(total).fill(Infinity);
  const update = (points: Float64Array, at: number): void => {
    for (let i = 0; i < total; i++) {
      let sum = 0;
      for (let c = 0; c < dimensions; c++) {
        const d = candidates[i * dimensions + c] - points[at + c];
        sum += d * d;
      }
      if (sum < nearest[i]) nearest[i] = sum;
    }
  };
  for (let i = 0; i < taken.length; i += dimensions) update(taken, i);
  const picked: number[] = [];
  while (picked.length < Math.min(count, total)) {
    let best = 0;
    for (let i = 1; i < total; i++) if (nearest[i] > nearest[best]) best = i;
    if (nearest[best] <= 0) break;
    picked.push(best);
    update(candidates, best * dimensions);
  }
  return picked;
}
