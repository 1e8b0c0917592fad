'use client';

import { Checkbox, FormControlLabel } from '@mui/material';
import { useState } from 'react';
import type { ReadingOfCondition } from '@melto/services/reading/readingView';

/** Readings of further charts that are taken with the first one. */
export interface Additions {
  /** What can be added: only what was printed through the same curves and read in the same mode describes the same state. */
  readonly addable: readonly ReadingOfCondition[];
  readonly isAdded: (id: number) => boolean;
  readonly onAdd: (id: number, on: boolean) => void;
  /** The first reading and those that are added. */
  readonly all: readonly number[];
}

export function useAdditions(readings: readonly ReadingOfCondition[], readingId: number): Additions {
  const first = readings.find(({ id }) => id === readingId);
  const addable = readings.filter(
    ({ id, curvesResultId, mode }) =>
      id !== readingId && curvesResultId === first?.curvesResultId && mode === first.mode,
  );
  const [added, setAdded] = useState<readonly number[]>(() => addable.filter(isAddition).map(({ id }) => id));
  return {
    addable,
    isAdded: (id) => added.includes(id),
    onAdd: (id, on) => setAdded(on ? [...added, id] : added.filter((other) => other !== id)),
    all: [readingId, ...addable.map(({ id }) => id).filter((id) => added.includes(id))],
  };
}

export function AddedReadings({ addable, isAdded, onAdd }: Additions) {
  return addable.map((row) => (
    <FormControlLabel
      key={row.id}
      control={<Checkbox size="small" checked={isAdded(row.id)} onChange={(_, on) => onAdd(row.id, on)} />}
      label={`with ${row.code}, ${row.title}`}
    />
  ));
}

/**
 * The newest reading that is not of a chart that adds to another one. One without ultraviolet (M2) stands beside that of
 * its sheet with it, which the profile is built from.
 */
export function newestFirstReading(readings: readonly ReadingOfCondition[]): ReadingOfCondition | undefined {
  const newest = readings.find((row) => !isAddition(row));
  if (newest?.mode !== 'M2') return newest;
  return readings.find(({ printId, mode }) => printId === newest.printId && mode !== 'M2') ?? newest;
}

function isAddition({ kind }: ReadingOfCondition): boolean {
  return kind === 'second' || kind === 'refinement';
}
