import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { movedInLight } from '../light/chartInLights.ts';
import type { ChartInLights } from '../light/chartInLights.ts';
import { labsUnder } from '../light/colourUnder.ts';
import type { SeenIn } from '../light/colourUnder.ts';
import type { SpectrumOn } from '../light/metamerism.ts';

/**
 * How recipes hold to a colour in some lights: for each recipe ΔE00 in each light. Beside the colour's own spectrum that
 * is how far print and colour part (metamerism); without one, how far the print itself moves from how it looks in D50.
 * @param recipes device values, row-major × channel. @param printed their Lab in D50, row-major × 3.
 */
export function recipesUnder(
  chart: ChartInLights,
  { recipes, printed }: { readonly recipes: ArrayLike<number>; readonly printed: ArrayLike<number> },
  lights: readonly SeenIn[],
  colour: SpectrumOn | undefined,
): Float64Array[] {
  const count = printed.length / 3;
  return lights.map((seen) => {
    const moved = movedInLight(chart, recipes, seen).map((value, i) => printed[i] + value);
    return deltaE2000Rows(moved, besides(colour, seen, count) ?? Float64Array.from(printed));
  });
}

/** The colour as the light shows it, once for each recipe; undefined without its spectrum. */
function besides(colour: SpectrumOn | undefined, seen: SeenIn, count: number): Float64Array | undefined {
  if (colour === undefined) return undefined;
  const lab = labsUnder(colour, seen);
  return Float64Array.from({ length: 3 * count }, (_, i) => lab[i % 3]);
}
