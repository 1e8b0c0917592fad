import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labFunctionInverse, labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { mediaWhite } from '../icc/profileTransform.ts';
import { nearestColours } from '../proof/placeList.ts';
import type { PrintedColour } from '../proof/placeList.ts';
import type { NamedColour } from '../refine/namedColour.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { vOfXyz } from '../tone/sctv.ts';

/** Shares of the solid that a list shows tints of. */
export const TINT_SHARES = [0.25, 0.5, 0.75] as const;

/**
 * The colour of a tint of a solid on a paper: what has its share as spot colour tone value (ISO 20654) and lies on the
 * straight way between the two.
 * @param share 0 for the bare paper, 1 for the solid.
 */
export function tintLab(paper: Lab, solid: Lab, share: number): Lab {
  const [from, to] = [paper, solid].map((lab) => vOfXyz(labToXyz(lab, WHITE_D50_MEASURED)));
  const xyz = [0, 1, 2].map(
    (axis) =>
      WHITE_D50_MEASURED[axis] *
      labFunctionInverse((from[axis] + share * (to[axis] - from[axis]) + 16) / 116),
  ) as [number, number, number];
  return xyzToLab(xyz, WHITE_D50_MEASURED);
}

/** Tints of each colour on the paper of a profile, with what comes nearest to them. */
export function tintsOf(profile: IccProfile, colours: readonly NamedColour[]): Result<PrintedColour[][]> {
  const paper = paperLab(profile);
  const tints = colours.flatMap(({ lab }) => TINT_SHARES.map((share) => tintLab(paper, lab, share)));
  const found = nearestColours(profile, Float64Array.from(tints.flat()));
  if (!found.ok) return found;
  const each = TINT_SHARES.length;
  return success(colours.map((_, i) => found.value.slice(i * each, (i + 1) * each)));
}

function paperLab(profile: IccProfile): Lab {
  const [x, y, z] = mediaWhite(profile);
  return xyzToLab([100 * x, 100 * y, 100 * z], WHITE_D50_MEASURED);
}
