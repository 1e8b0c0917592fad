import { deltaE2000 } from '../colour/deltaE2000.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { SeenIn } from '../light/colourUnder.ts';
import type { ListedColour } from '../refine/namedColour.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import type { XyzWeights } from '../spectral/xyzWeights.ts';

/** ΔE00 of each colour between D50 and a light, each against its own white; null for a colour without spectrum. */
export function listUnder(colours: readonly ListedColour[], { light, observer }: SeenIn): (number | null)[] {
  const known = new Map<string, XyzWeights>();
  return colours.map(({ lab, spectrum }) => {
    if (spectrum === undefined) return null;
    const { grid, values } = spectrum;
    const key = `${grid.startNm} ${grid.stepNm} ${grid.count}`;
    const weights = known.get(key) ?? createXyzWeights(grid, light, observer);
    known.set(key, weights);
    return deltaE2000(lab, xyzToLab(spectrumToXyz(weights, values), weights.white));
  });
}
