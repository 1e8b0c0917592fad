import type { Lab } from '../colour/lab.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { absoluteWays } from '../icc/absoluteWays.ts';
import { mostInk } from '../icc/mostInk.ts';
import { nearestDevice } from '../proof/nearestColours.ts';
import type { PrintedColour } from '../proof/placeList.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** Amounts of black that a recipe is looked for with. */
const BLACKS = Array.from({ length: 21 }, (_, i) => i / 20);
/** ΔE00 by which a recipe may be farther from the colour than the nearest one. */
const AS_GOOD = 0.3;

/**
 * Recipes of one colour on a device of C, M, Y, K: what comes nearest to it with more and more black, as far as it comes
 * as near as the best of them does.
 * @param lab D50/2°, absolute.
 * @returns by rising black; an issue where the device has other channels.
 */
export function recipesOf(profile: IccProfile, lab: Lab): Result<PrintedColour[]> {
  const ways = absoluteWays(profile);
  if (!ways.ok) return ways;
  const { toDevice, toLab } = ways.value;
  if (toLab.inputs !== 4)
    return failure({
      code: 'recipes.channels',
      path: 'profile',
      expected: 'C, M, Y and K',
      found: `${toLab.inputs} channels`,
    });
  const most = mostInk(toDevice);
  const [c, m, y] = transformed(toDevice, lab);
  const found = BLACKS.map((black) => {
    const beside = besideBlack(toLab, black);
    const device = [...nearestDevice({ toLab: beside, mostInk: most - black }, lab, [c, m, y]), black];
    const printed = transformed(toLab, device);
    const [deltaE] = deltaE2000Rows(lab, printed);
    return { device, printed: [printed[0], printed[1], printed[2]] as const, deltaE };
  });
  const least = Math.min(...found.map(({ deltaE }) => deltaE));
  return success(found.filter(({ deltaE }) => deltaE <= least + AS_GOOD));
}

/** The colours of C, M, Y beside an amount of black. */
function besideBlack(toLab: Transform, black: number): Transform {
  return {
    inputs: 3,
    outputs: 3,
    apply(rows, out) {
      const count = Math.floor(rows.length / 3);
      const inks = new Float64Array(count * 4);
      for (let i = 0; i < count; i++) inks.set([rows[3 * i], rows[3 * i + 1], rows[3 * i + 2], black], 4 * i);
      toLab.apply(inks, out);
    },
  };
}
