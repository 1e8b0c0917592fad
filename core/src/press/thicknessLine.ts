/** Below this a band is taken as no light. */
const LEAST = 1e-5;
/**
 * Spread of densities, squared and summed, from which on what was read of an ink at several thicknesses counts as much as
 * the rule that all its bands grow in proportion.
 */
const HALF_TRUST = 0.002;

/** A patch by its light: reflectance factors of bands, or X, Y, Z as shares of white, and its density. */
export interface PatchLight {
  readonly light: ArrayLike<number>;
  /** Through the filter of the ink concerned. */
  readonly density: number;
}

/** How the solid of an ink changes its light with the density that it is read at. */
export interface ThicknessLine {
  /** Change of −log10 of each band for each unit of density. */
  readonly slopes: Float64Array;
  /** −log10 of the bare stock's bands. */
  readonly paper: Float64Array;
}

/**
 * Learns from solids of one ink at the densities that zones and sheets have brought, leaning on Beer's law (all bands grow
 * in proportion over the paper) as far as they were alike. Spectra tell it well; X, Y, Z are three wide bands and tell it
 * near the densities that were read.
 * @param solids at least one.
 */
export function thicknessLine(paper: PatchLight, solids: readonly PatchLight[]): ThicknessLine {
  if (solids.length === 0) throw new RangeError('no solid to learn from');
  const bare = logs(paper.light);
  const rows = solids.map(({ light }) => logs(light));
  const middle = solids.reduce((sum, { density }) => sum + density, 0) / solids.length;
  const spread = solids.reduce((sum, { density }) => sum + (density - middle) ** 2, 0);
  const slopes = bare.map((bareBand, band) => {
    const mean = rows.reduce((sum, row) => sum + row[band], 0) / rows.length;
    const inProportion = (mean - bareBand) / Math.max(0.05, middle - paper.density);
    let together = HALF_TRUST * inProportion;
    rows.forEach((row, i) => (together += (solids[i].density - middle) * (row[band] - mean)));
    return together / (spread + HALF_TRUST);
  });
  return { slopes, paper: bare };
}

function logs(light: ArrayLike<number>): Float64Array {
  return Float64Array.from(light, (value) => -Math.log10(Math.max(LEAST, value)));
}

/**
 * The light of a solid as it would be with its density changed, into one buffer that is used again.
 * @returns for a change of density the light, valid until the next call.
 */
export function thicknessOf(
  { slopes, paper }: ThicknessLine,
  solid: ArrayLike<number>,
): (change: number) => Float64Array {
  const now = logs(solid);
  // Ink taken off leaves the bare stock at most.
  const floor = paper.map((bare, band) => Math.min(now[band], bare));
  const out = new Float64Array(slopes.length);
  return (change) => {
    for (let band = 0; band < out.length; band++)
      out[band] = Math.exp(-Math.LN10 * Math.max(floor[band], now[band] + slopes[band] * change));
    return out;
  };
}
