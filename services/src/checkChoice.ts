import type { PatchSet } from '@melto/core/cgats/patchSet';
import { nominalValues } from './aimSets.ts';
import { Problem } from './problem.ts';
import type { LoadedReading } from './readings.ts';

/** What a reading is judged by. */
export interface CheckChoice {
  readonly aimSetId: number;
  readonly toleranceSetId: number;
  readonly substrateCorrected: boolean;
}

/** As a print keeps it: with the way the wedge took to the device. */
export interface JudgedBy extends CheckChoice {
  readonly through: 'profile, absolute' | 'profile, relative' | 'device values';
}

export function judgedByOf({ print }: Pick<LoadedReading, 'print'>): JudgedBy | undefined {
  return print.judgedBy === null ? undefined : (JSON.parse(print.judgedBy) as JudgedBy);
}

/** A reading with the CMYK values that its chart asks for in place of those that went to the device. */
export function askedSet({ set, chart, rows }: LoadedReading): PatchSet {
  const device = nominalValues(chart.set.device, chart.set.space, rows);
  if (device === undefined)
    throw new Problem(
      'bad-input',
      `${chart.title} does not ask for CMYK values.`,
      'Judge a control wedge or a CMYK chart.',
      'readingId',
    );
  return { ...set, space: 'cmyk', device };
}
