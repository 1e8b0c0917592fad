import { bareValues, channelCount, CMYK, sameProcess } from '@melto/core/device/process';
import { askedCmyk } from '../charts/askedValues.ts';
import { pickPatches } from '@melto/core/cgats/pickPatches';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import type { SpotReading } from '@melto/core/conformity/spotColour';
import type { PredictedCheck } from '@melto/core/conformity/predictConformity';
import { mean } from '@melto/core/numerics/statistics';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { Problem } from '../kernel/problem.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** What a reading is judged by. */
export interface CheckChoice {
  readonly aimSetId: number;
  readonly toleranceSetId: number;
  readonly substrateCorrected: boolean;
  /** Where the aims follow the paper: those of spot colours as well. */
  readonly spotsMoved?: boolean;
  /** After how many days the check is due again, where that is said. */
  readonly everyDays?: number;
}

/** As a print keeps it: with the way the wedge took to the device. */
export interface JudgedBy extends CheckChoice {
  readonly through: 'profile, absolute' | 'profile, relative' | 'device values';
  /** Spot colours on the wedge; kept by the print, not chosen anew. */
  readonly spots?: readonly SpotPatch[];
  /** What was predicted of it when it was printed. */
  readonly predicted?: PredictedCheck;
}

/** A spot colour of a wedge, by its row in the chart. */
export interface SpotPatch extends NamedColour {
  readonly row: number;
}

export function judgedByOf({
  print,
}: {
  readonly print: Pick<LoadedReading['print'], 'judgedBy'>;
}): JudgedBy | undefined {
  if (print.judgedBy === null) return undefined;
  const judgedBy = JSON.parse(print.judgedBy) as JudgedBy | { readonly limits: unknown };
  // A short check is judged by limits alone.
  return 'aimSetId' in judgedBy ? judgedBy : undefined;
}

/** The spot colour of each row of a reading; undefined where it is a patch of the process inks. */
export function spotRows(loaded: Pick<LoadedReading, 'print' | 'rows'>): readonly (SpotPatch | undefined)[] {
  const byRow = new Map((judgedByOf(loaded)?.spots ?? []).map((spot) => [spot.row, spot]));
  return loaded.rows.map((row) => byRow.get(row));
}

/** A reading with the CMYK values that its chart asks for in place of those that went to the device; no spot colours. */
export function askedSet(loaded: LoadedReading): PatchSet {
  const { set, chart, rows } = loaded;
  const spots = spotRows(loaded);
  const own = [...rows.keys()].filter((i) => spots[i] === undefined);
  const device = askedCmyk(
    chart.set,
    own.map((i) => rows[i]),
  );
  if (device === undefined)
    throw new Problem(
      'bad-input',
      `${chart.title} does not ask for CMYK values.`,
      'Choose a reading of a control wedge or a CMYK chart.',
      'readingId',
    );
  return { ...(own.length === rows.length ? set : pickPatches(set, own)), process: CMYK, device };
}

/** Spot colours as they were read, each the mean of its patches. */
export function spotReadings(loaded: LoadedReading): SpotReading[] {
  const { set, xyz, condition } = loaded;
  const spots = spotRows(loaded);
  const named = new Map(spots.flatMap((spot) => (spot === undefined ? [] : [[spot.name, spot] as const])));
  const channels = channelCount(CMYK);
  return [...named.values()].map(({ name, lab }) => {
    const own = [...spots.keys()].filter((i) => spots[i]?.name === name);
    const meanOf = (axis: number): number => mean(own.map((i) => xyz[3 * i + axis]));
    const inks = sameProcess(condition.process, CMYK)
      ? set.device?.subarray(channels * own[0], channels * (own[0] + 1))
      : undefined;
    return { name, lab, xyz: [meanOf(0), meanOf(1), meanOf(2)], device: [...(inks ?? bareValues(CMYK))] };
  });
}
