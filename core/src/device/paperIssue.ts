import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { Issue } from '../result.ts';

/** L* between which stocks lie that are printed on: kraft board is some 60, the brightest papers 97. */
export const PAPER_LIGHTNESS = { least: 35, most: 110 } as const;

/**
 * Why a measured stock cannot be one, and nothing can be built on it; undefined where it can.
 * @param paper mean XYZ of its bare patches, Y = 100 for a perfect diffuser.
 */
export function paperIssue(paper: Xyz): Issue | undefined {
  const [l] = xyzToLab(paper, WHITE_D50_MEASURED);
  const { least, most } = PAPER_LIGHTNESS;
  if (l >= least && l <= most) return undefined;
  return {
    code: 'paper.lightness',
    path: 'bare paper',
    expected: `L* ${least} to ${most}`,
    found: Number.isFinite(l) ? `L* ${l.toFixed(1)}` : 'no colour',
  };
}
