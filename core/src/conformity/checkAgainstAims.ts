import { patchXyz } from '../cgats/patchColours.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { judgeColours } from './judgeColours.ts';
import type { ColourPair, Judgement } from './judgeColours.ts';
import { patchGroups } from './patchGroups.ts';
import { substrateCorrected } from './substrateCorrected.ts';
import type { ToleranceSet } from './toleranceSet.ts';

/** Aims of CMYK values: XYZ (Y = 100), row-major × 3, and how they were measured. */
export interface Aims {
  readonly device: Float64Array;
  readonly xyz: Float64Array;
  readonly mode?: string;
}

export interface AimCheck extends Judgement {
  readonly pairs: readonly ColourPair[];
  readonly substrateCorrected: boolean;
  /** In words, where the reading was made otherwise than the aims: no plain *conforms* then. */
  readonly otherwise?: string;
}

/**
 * Judges a reading against aims for the same device values; repeats are averaged as reflectance before.
 * @param corrected aims are moved to the substrate that was read, where the tolerance set does not forbid it.
 */
export function checkAgainstAims(
  reading: PatchSet,
  aims: Aims,
  tolerances: ToleranceSet,
  corrected: boolean,
): Result<AimCheck> {
  const xyz = patchXyz(reading);
  if (reading.space !== 'cmyk' || reading.device === undefined || xyz === undefined)
    return failure({
      code: 'check.reading',
      path: 'reading',
      expected: 'CMYK values with colours',
      found: 'none',
    });
  const read = mergeRepeats(reading.device, 4, xyz);
  const wanted = mergeRepeats(aims.device, 4, aims.xyz);
  const byKey = new Map(Array.from(wanted.counts, (_, row) => [keyOf(wanted.device, row), row] as const));
  const found = Array.from(read.counts, (_, row) => ({
    row,
    aim: byKey.get(keyOf(read.device, row)),
  })).filter((pair): pair is { row: number; aim: number } => pair.aim !== undefined);
  if (found.length === 0)
    return failure({
      code: 'check.common',
      path: 'aims',
      expected: 'aims for the device values that were read',
      found: 'none in common',
    });
  const moved = corrected ? movedAims(read, wanted) : success(wanted.xyz);
  if (!moved.ok) return moved;
  const pairs = found.map(({ row, aim }): ColourPair => {
    const device = read.device.subarray(4 * row, 4 * row + 4);
    const keeps = tolerances.substrateUncorrected && patchGroups(device).has('substrate');
    return {
      device,
      aim: labAt(keeps ? wanted.xyz : moved.value, aim),
      measured: labAt(read.xyz, row),
    };
  });
  const judgement = judgeColours(pairs, tolerances);
  const mode = reading.conditions.mode;
  const otherwise =
    mode !== undefined && aims.mode !== undefined && mode !== aims.mode
      ? `read in ${mode}, the aims are for ${aims.mode}`
      : undefined;
  return success({
    ...judgement,
    verdict:
      otherwise !== undefined && judgement.verdict !== 'does-not-conform' ? 'not-judged' : judgement.verdict,
    pairs,
    substrateCorrected: corrected,
    otherwise,
  });
}

function movedAims(
  read: ReturnType<typeof mergeRepeats>,
  wanted: ReturnType<typeof mergeRepeats>,
): Result<Float64Array> {
  const paper = meanPaperXyz(read.device, 4, 0, read.xyz);
  const aim = meanPaperXyz(wanted.device, 4, 0, wanted.xyz);
  if (paper === undefined || aim === undefined)
    return failure({
      code: 'check.paper',
      path: paper === undefined ? 'reading' : 'aims',
      expected: 'bare paper, to correct the aims by it',
      found: 'none',
    });
  return success(substrateCorrected(wanted.xyz, aim, paper));
}

/** Device values agree where they are the same whole level of 8 bits. */
function keyOf(device: Float64Array, row: number): string {
  return Array.from(device.subarray(4 * row, 4 * row + 4), (value) => Math.round(255 * value)).join();
}

function labAt(xyz: Float64Array, row: number): Lab {
  const own: Xyz = [xyz[3 * row], xyz[3 * row + 1], xyz[3 * row + 2]];
  return xyzToLab(own, WHITE_D50_MEASURED);
}
