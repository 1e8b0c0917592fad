/** Steps of a ramp on which its bends are looked at. */
const STEPS = 128;
/** How far the bends of a ramp are evened out, in steps. */
const BLUR = 5;
/** Share of the nodes that are spread evenly, whatever the bends. */
const EVEN = 0.35;

/**
 * Where the nodes of a table's axis lie so that straight lines between them err least: dense where the colour bends, as
 * the square root of its second derivative (the optimum for piecewise linear interpolation).
 * @param ramps each Lab of `STEPS + 1` even device values of one ink, row-major × 3, beside other inks held.
 */
export function axisNodes(points: number, ramps: readonly Float64Array[]): Float64Array {
  const bends = new Float64Array(STEPS + 1);
  for (const lab of ramps)
    for (let i = 1; i < STEPS; i++)
      bends[i] += Math.hypot(
        ...[0, 1, 2].map((o) => lab[3 * (i - 1) + o] - 2 * lab[3 * i + o] + lab[3 * (i + 1) + o]),
      );
  bends[0] = bends[1];
  bends[STEPS] = bends[STEPS - 1];
  const dense = bends.map((_, i) => {
    let sum = 0;
    for (let k = -BLUR; k <= BLUR; k++) sum += bends[Math.min(STEPS, Math.max(0, i + k))];
    return Math.sqrt(sum);
  });
  const total = dense.reduce((sum, value) => sum + value, 0);
  const even = total > 0 ? EVEN : 1;
  const reached = new Float64Array(STEPS + 1);
  for (let i = 1; i <= STEPS; i++)
    reached[i] =
      reached[i - 1] + even / STEPS + (total > 0 ? ((1 - EVEN) * (dense[i] + dense[i - 1])) / 2 / total : 0);
  const nodes = new Float64Array(points);
  for (let node = 1, i = 0; node < points - 1; node++) {
    const wanted = (reached[STEPS] * node) / (points - 1);
    while (reached[i + 1] < wanted) i++;
    nodes[node] = (i + (wanted - reached[i]) / (reached[i + 1] - reached[i])) / STEPS;
  }
  nodes[points - 1] = 1;
  return nodes;
}

/** Device values of the ramps of one ink, beside each of the other inks given. */
export function axisRamp(channels: number, ink: number, beside: ArrayLike<number>): Float64Array {
  const device = new Float64Array((STEPS + 1) * channels);
  for (let i = 0; i <= STEPS; i++) {
    for (let c = 0; c < channels; c++) device[i * channels + c] = beside[c];
    device[i * channels + ink] = i / STEPS;
  }
  return device;
}
