import { CMYK, sameProcess } from '../device/process.ts';
import { patchXyz } from '../cgats/patchColours.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { conditionsApart } from './conditionsApart.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { aimsFor } from './aims.ts';
import type { AimOrigin, Aims, AimsFor } from './aims.ts';
import { groupsOf, judgeColours } from './judgeColours.ts';
import type { ColourPair, Judgement } from './judgeColours.ts';
import type { SpotReading } from './spotColour.ts';
import { substrateCorrected } from './substrateCorrected.ts';
import type { ToleranceSet } from './toleranceSet.ts';

export interface AimCheck extends Judgement {
  readonly pairs: readonly CheckedPair[];
  /** Patches that were read and have no aim. */
  readonly withoutAim: number;
  readonly substrateCorrected: boolean;
  /** The aims of its spot colours were moved with the paper, too. */
  readonly spotsMoved: boolean;
  /** Where aims were corrected: the white they were for, and the one that was read. */
  readonly white?: { readonly aim: Lab; readonly read: Lab };
  /** In words, how the reading was made otherwise than the aims: no plain *conforms* then. */
  readonly otherwise: readonly string[];
}

export interface CheckedPair extends ColourPair {
  /** The aim before it was corrected for the substrate. */
  readonly uncorrected: Lab;
  readonly origin: AimOrigin;
}

/** A reading laid beside its aims, to be judged in more than one way. */
export interface SheetBesideAims {
  /** Each device value once, row-major × 4 and × 3. */
  readonly read: {
    readonly device: Float64Array;
    readonly xyz: Float64Array;
    readonly counts: ArrayLike<number>;
  };
  readonly wanted: AimsFor;
  /** Rows that have an aim. */
  readonly rows: readonly number[];
  readonly paper: Xyz | undefined;
  readonly otherwise: readonly string[];
  readonly spots: readonly SpotReading[];
}

/** Judges a reading against aims at once: see `layBesideAims` and `judgeSheet`. */
export function checkAgainstAims(
  reading: PatchSet,
  aims: Aims,
  tolerances: ToleranceSet,
  corrected: boolean,
  spots: readonly SpotReading[] = [],
  spotsMoved = false,
): Result<AimCheck> {
  const sheet = layBesideAims(reading, aims, spots);
  return sheet.ok ? judgeSheet(sheet.value, tolerances, corrected, spotsMoved) : sheet;
}

/**
 * Finds the aims of what was read; repeats are averaged as reflectance before.
 * @param reading its device values are those that the aims are for, not what a colour conversion made of them.
 * @param spots spot colours of the same sheet, by aims of their own.
 */
export function layBesideAims(
  reading: PatchSet,
  aims: Aims,
  spots: readonly SpotReading[] = [],
): Result<SheetBesideAims> {
  const xyz = patchXyz(reading);
  if (!sameProcess(reading.process, CMYK) || reading.device === undefined || xyz === undefined)
    return failure({
      code: 'check.reading',
      path: 'reading',
      expected: 'CMYK values with colours',
      found: 'none',
    });
  const read = mergeRepeats(reading.device, 4, xyz);
  const wanted = aimsFor(aims, read.device);
  const rows = [...wanted.origins.keys()].filter((row) => wanted.origins[row] !== 'none');
  if (rows.length === 0)
    return failure({
      code: 'check.common',
      path: 'aims',
      expected: 'aims for the device values that were read',
      found: 'none in common',
    });
  return success({
    ...{ read, wanted, rows, spots },
    paper: meanPaperXyz(CMYK, read.device, read.xyz),
    otherwise: conditionsApart(reading.conditions, aims.conditions),
  });
}

/**
 * Judges a sheet by tolerances.
 * @param corrected aims are moved to the substrate that was read, where the tolerance set does not forbid it.
 * @param spotsMoved those of spot colours as well: a spot colour has one aim on any paper unless someone says so.
 */
export function judgeSheet(
  { read, wanted, rows, paper, otherwise, spots }: SheetBesideAims,
  tolerances: ToleranceSet,
  corrected: boolean,
  spotsMoved = false,
): Result<AimCheck> {
  if (corrected && (paper === undefined || wanted.paper === undefined))
    return failure({
      code: 'check.paper',
      path: paper === undefined ? 'reading' : 'aims',
      expected: 'bare paper, to correct the aims by it',
      found: 'none',
    });
  // A set of one light aim has no dark end: there is no line from its paper to it.
  if (corrected && wanted.paper?.some((value, axis) => !(value > wanted.least[axis])))
    return failure({
      code: 'check.paper',
      path: 'aims',
      expected: 'aims that are darker than their paper, to correct them by it',
      found: 'none',
    });
  const move = (xyz: Float64Array): Float64Array =>
    corrected && paper !== undefined && wanted.paper !== undefined
      ? substrateCorrected(xyz, wanted.paper, paper, wanted.least)
      : xyz;
  const moved = move(wanted.xyz);
  const all = [
    ...rows.map((row): CheckedPair => ({
      device: read.device.subarray(4 * row, 4 * row + 4),
      aim: labAt(moved, row),
      uncorrected: labAt(wanted.xyz, row),
      measured: labAt(read.xyz, row),
      origin: wanted.origins[row],
      estimated: wanted.origins[row] === 'completed',
    })),
    ...spots.map(({ name, lab, xyz: own, device }): CheckedPair => ({
      device,
      spot: name,
      aim:
        corrected && spotsMoved ? labAt(move(Float64Array.from(labToXyz(lab, WHITE_D50_MEASURED))), 0) : lab,
      uncorrected: lab,
      measured: xyzToLab(own, WHITE_D50_MEASURED),
      origin: 'given',
    })),
  ];
  const groups = groupsOf(all);
  const pairs = all.map((pair, i) =>
    tolerances.substrateUncorrected && groups[i].has('substrate') ? { ...pair, aim: pair.uncorrected } : pair,
  );
  const judgement = judgeColours(pairs, tolerances, groups);
  return success({
    ...judgement,
    verdict:
      otherwise.length > 0 && judgement.verdict !== 'does-not-conform' ? 'not-judged' : judgement.verdict,
    pairs,
    withoutAim: read.counts.length - rows.length,
    substrateCorrected: corrected,
    spotsMoved: corrected && spotsMoved && spots.length > 0,
    white:
      corrected && paper !== undefined && wanted.paper !== undefined
        ? { aim: labAt(Float64Array.from(wanted.paper), 0), read: labAt(Float64Array.from(paper), 0) }
        : undefined,
    otherwise,
  });
}

function labAt(xyz: Float64Array, row: number): Lab {
  const own: Xyz = [xyz[3 * row], xyz[3 * row + 1], xyz[3 * row + 2]];
  return xyzToLab(own, WHITE_D50_MEASURED);
}
