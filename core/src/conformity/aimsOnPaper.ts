import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { aimPrimaries } from './aimPrimaries.ts';
import { aimsFor } from './aims.ts';
import type { Aims } from './aims.ts';
import { movedWithPaper } from './substrateCorrected.ts';
import type { PaperMove } from './substrateCorrected.ts';

/** The move of an aim set to a measured white, or why there is none. */
export function paperMove(aims: Aims, to: Xyz): Result<PaperMove> {
  const { paper: from, least } = aimsFor(aims, new Float64Array(0));
  if (from === undefined)
    return failure({
      code: 'aims.paper',
      path: 'aims',
      expected: 'a patch of bare paper, to move them from',
      found: 'none',
    });
  for (const [white, path] of [
    [from, 'aims'],
    [to, 'white'],
  ] as const)
    if (white.some((value, axis) => !(value > least[axis])))
      return failure({
        code: 'aims.paper',
        path,
        expected: 'paper that is lighter than the darkest aim',
        found: `Y ${white[1].toFixed(1)} where the darkest aim has ${least[1].toFixed(1)}`,
      });
  return success({ from, to, least });
}

/** Aims as they are on another paper: each colour by the tristimulus linear correction; spectra do not move. */
export function aimsOnPaper(aims: Aims, move: PaperMove): Aims {
  return { ...aims, spectra: undefined, xyz: movedWithPaper(aims.xyz, move), move };
}

/** How far a move takes the paper and each primary. */
export interface PaperShift {
  readonly from: Lab;
  readonly to: Lab;
  readonly deltaE: number;
  readonly primaries: readonly {
    readonly name: string;
    readonly before: Lab;
    readonly after: Lab;
    readonly deltaE: number;
  }[];
}

export function paperShift(aims: Aims, move: PaperMove): PaperShift {
  const after = aimPrimaries(aimsOnPaper(aims, move));
  const [from, to] = [move.from, move.to].map((xyz) => xyzToLab(xyz, WHITE_D50_MEASURED));
  return {
    ...{ from, to },
    deltaE: deltaE2000(from, to),
    primaries: aimPrimaries(aims).map(({ name, lab }, i) => ({
      ...{ name, before: lab, after: after[i].lab },
      deltaE: deltaE2000(lab, after[i].lab),
    })),
  };
}
