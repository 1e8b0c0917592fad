import { CMYK } from '../device/process.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import type { MeasurementConditions, PatchSpectra } from '../cgats/patchSet.ts';
import type { Xyz } from '../colour/xyz.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { PRIMARY_VALUES } from './primaryValues.ts';
import { completedAims } from './completedAims.ts';
import type { ColourPair } from './judgeColours.ts';
import { localAims } from './localAims.ts';
import type { PublishedCondition } from './publishedCondition.ts';
import { movedWithPaper } from './substrateCorrected.ts';
import type { PaperMove } from './substrateCorrected.ts';

/** Aims of CMYK values, and how they were measured. */
export interface Aims {
  readonly conditions: MeasurementConditions;
  /** Known colours: CMYK row-major × 4, XYZ (Y = 100) row-major × 3. */
  readonly device: Float64Array;
  readonly xyz: Float64Array;
  /** Spectra of the known colours, where they are known. */
  readonly spectra?: PatchSpectra;
  /** Where only primaries and tone values are published: all else is completed from them. */
  readonly published?: PublishedCondition;
  /** Where `xyz` was moved to another paper: what is completed moves with it. */
  readonly move?: PaperMove;
}

/** Where the aim of a value comes from. */
export type AimOrigin = 'given' | 'interpolated' | 'completed' | 'none';

export interface AimsFor {
  /** NaN where there is no aim. */
  readonly xyz: Float64Array;
  readonly origins: readonly AimOrigin[];
  readonly paper: Xyz | undefined;
  /** The least X, Y, Z of all aims. */
  readonly least: Xyz;
}

/** With fewer patches than this nothing is interpolated. */
const LEAST_PATCHES = 200;

/**
 * Aims for certain values: those that are given, else interpolated from the neighbours (a characterisation), else
 * completed from the published solids, else none.
 * @param wanted row-major C, M, Y, K, 0..1.
 */
export function aimsFor(aims: Aims, wanted: Float64Array): AimsFor {
  const known = mergeRepeats(aims.device, 4, aims.xyz);
  const count = wanted.length / 4;
  const byKey = new Map(Array.from(known.counts, (_, row) => [deviceKey(known.device, row), row] as const));
  const xyz = new Float64Array(3 * count).fill(NaN);
  const origins: AimOrigin[] = [];
  const missing: number[] = [];
  for (let i = 0; i < count; i++) {
    const row = byKey.get(deviceKey(wanted, i));
    origins.push(row === undefined ? 'none' : 'given');
    if (row === undefined) missing.push(i);
    else xyz.set(known.xyz.subarray(3 * row, 3 * row + 3), 3 * i);
  }
  const values = Float64Array.from(missing.flatMap((i) => [...wanted.subarray(4 * i, 4 * i + 4)]));
  const added =
    aims.published !== undefined
      ? completedOnPaper(aims.published, values, aims.move)
      : known.counts.length >= LEAST_PATCHES
        ? localAims(known.device, known.xyz, values)
        : undefined;
  if (added !== undefined)
    missing.forEach((row, i) => {
      xyz.set(added.subarray(3 * i, 3 * i + 3), 3 * row);
      origins[row] = aims.published !== undefined ? 'completed' : 'interpolated';
    });
  return {
    xyz,
    origins,
    paper: meanPaperXyz(CMYK, known.device, known.xyz),
    least: leastOf([known.xyz, xyz, darkestOf(aims)]),
  };
}

/** Of what is completed from published solids all four inks are the darkest, whatever was wanted. */
function darkestOf({ published, move }: Aims): Float64Array {
  return published === undefined
    ? new Float64Array(0)
    : completedOnPaper(published, Float64Array.of(1, 1, 1, 1), move);
}

function completedOnPaper(
  published: PublishedCondition,
  values: Float64Array,
  move: PaperMove | undefined,
): Float64Array {
  const xyz = completedAims(published, values);
  return move === undefined ? xyz : movedWithPaper(xyz, move);
}

/** Device values agree where they are the same whole level of 8 bits. */
export function deviceKey(device: ArrayLike<number>, row: number): string {
  return [0, 1, 2, 3].map((ink) => Math.round(255 * device[4 * row + ink])).join();
}

/** What tells the pairs of a check apart: their device values, or the name of a spot colour. */
export function pairKey({ device, spot }: Pick<ColourPair, 'device' | 'spot'>): string {
  return spot === undefined ? deviceKey(device, 0) : `spot ${spot}`;
}

function leastOf(lists: readonly Float64Array[]): Xyz {
  const least: [number, number, number] = [Infinity, Infinity, Infinity];
  for (const xyz of lists)
    for (let i = 0; i < xyz.length; i++) if (xyz[i] < least[i % 3]) least[i % 3] = xyz[i];
  return least;
}

/** Primaries of a published condition as given aims. */
export function publishedAims(published: PublishedCondition): Aims {
  return {
    // These data predate the M modes: unpolarised, backing as their headers say.
    conditions: { filter: 'none', illuminant: 'D50', observer: '2' },
    device: PRIMARY_VALUES,
    xyz: completedAims(published, PRIMARY_VALUES),
    published,
  };
}
