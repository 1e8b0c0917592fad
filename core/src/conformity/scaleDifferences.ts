import {
  aimStanding,
  greyAim,
  neutralDensityAim,
  neutralLightness,
  neutralWeight,
} from '../balance/neutralAim.ts';
import type { NeutralScale } from '../balance/neutralAim.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { neutralDensity } from '../density/density.ts';
import type { ColourPair } from './judgeColours.ts';
import { MAIN_AXIS } from '../tone/mainAxis.ts';
import type { PatchGroup } from './patchGroups.ts';
import { primaryRows } from './primaryRows.ts';

/** Differences that take more than one patch to work out; NaN where the patches they need are missing. */
export interface ScaleDifferences {
  /** Measured minus aim tone value, per cent; single inks only. */
  readonly toneValue: (row: number) => number;
  /** Weighted, against the near-neutral aims of the sheet's own paper and darkest step; grey and black scale only. */
  readonly weightedL: (row: number) => number;
  readonly weightedCh: (row: number) => number;
}

/** @param groups of each pair. */
export function scaleDifferences(
  pairs: readonly ColourPair[],
  groups: readonly ReadonlySet<PatchGroup>[],
): ScaleDifferences {
  const { paper, solids } = primaryRows(pairs, groups);
  const xyzY = (lab: Lab): number => labToXyz(lab, WHITE_D50_MEASURED)[1];
  const darkest = (scale: NeutralScale): number => {
    const row =
      scale === 'k' ? solids[3] : groups.findIndex((own) => own.has('grey scale') && own.has('overprints'));
    return row < 0 || paper < 0
      ? NaN
      : neutralDensity(xyzY(pairs[row].measured), xyzY(pairs[paper].measured));
  };
  const density = { cmy: darkest('cmy'), k: darkest('k') };
  const scaleOf = (row: number): NeutralScale | undefined =>
    groups[row].has('grey scale') ? 'cmy' : groups[row].has('black scale') ? 'k' : undefined;
  /** Measured minus aim, weighted, or undefined where there is no aim. */
  const weighted = (row: number): readonly [number, number] | undefined => {
    const scale = scaleOf(row);
    if (scale === undefined || paper < 0) return undefined;
    const dmax = density[scale];
    if (!Number.isFinite(dmax) || aimStanding(scale, dmax) === 'none') return undefined;
    const { device, measured } = pairs[row];
    const own = pairs[paper].measured;
    const tone = scale === 'cmy' ? device[0] : device[3];
    const weight = neutralWeight(tone);
    if (scale === 'k')
      return [weight * (measured[0] - neutralLightness(neutralDensityAim('k', tone, dmax), xyzY(own))), 0];
    const aim = greyAim(tone, dmax, own, xyzY(own));
    return [weight * (measured[0] - aim[0]), weight * Math.hypot(measured[1] - aim[1], measured[2] - aim[2])];
  };
  return {
    toneValue: (row) => {
      const { device } = pairs[row];
      const ink = [0, 1, 2, 3].findIndex((channel) => device[channel] > 0);
      if (ink < 0 || paper < 0 || solids[ink] < 0) return NaN;
      const value = (of: 'aim' | 'measured'): number => {
        const at = (index: number): number => labToXyz(pairs[index][of], WHITE_D50_MEASURED)[MAIN_AXIS[ink]];
        return (100 * (at(paper) - at(row))) / (at(paper) - at(solids[ink]));
      };
      return value('measured') - value('aim');
    },
    weightedL: (row) => weighted(row)?.[0] ?? NaN,
    weightedCh: (row) => weighted(row)?.[1] ?? NaN,
  };
}
