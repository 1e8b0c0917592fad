'use client';

import { MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ReactNode } from 'react';
import {
  coarsestScreen,
  needsOf,
  PATCH_SIZES,
  patchesForScreen,
  roomForAperture,
} from '@melto/core/charts/chartForm';
import type { PatchSize } from '@melto/core/charts/chartForm';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import { PAGES_OF_CONDITION } from '@/endpoints/charts';
import { ask } from '@/ui/api';
import { formatLength, formatScreen, lengthUnit, screenUnit } from '@/ui/units';
import { PaperField } from './PaperField';

/** How a chart is to stand on paper. */
export interface WholeForm {
  readonly paper: PaperName;
  readonly reader: ReaderKind;
  readonly patchSize: PatchSize;
}

const READERS: readonly (readonly [ReaderKind, string])[] = [
  ['strip', 'strip reader'],
  ['sheet', 'sheet reader'],
  ['spot', 'spot reader'],
];

/**
 * The fields for the reader that a chart is laid out for, the paper it stands on and the size of its patches, and what
 * they make; undefined while the page that is typed is none. Patches begin with the size that suits the device's screen.
 */
export function useChartForm(conditionId: number): {
  readonly form: WholeForm | undefined;
  readonly reader: ReaderKind;
  readonly fields: ReactNode;
} {
  const { data: device } = useQuery({
    queryKey: ['pages', conditionId],
    queryFn: () => ask(PAGES_OF_CONDITION, { params: { id: conditionId } }),
  });
  const [reader, setReader] = useState<ReaderKind>('strip');
  const [paper, setPaper] = useState<PaperName | undefined>('a4');
  const [chosen, setChosen] = useState<PatchSize>();
  const screen = device?.screenPerCm ?? undefined;
  const suiting = screen === undefined ? 'usual' : patchesForScreen(reader, screen);
  const patchSize = chosen ?? suiting ?? 'largest';
  const needs = needsOf({ reader, patchSize });
  const tooFine = screen !== undefined && coarsestScreen(needs) > screen;
  const fields = (
    <>
      <TextField
        select
        label="Read with"
        value={reader}
        onChange={(event) => setReader(event.target.value as ReaderKind)}
        sx={{ width: 132 }}
      >
        {READERS.map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <PaperField paper={paper} own={device?.pages ?? []} onPaper={setPaper} />
      <TextField
        select
        label="Patch size"
        value={patchSize}
        onChange={(event) => setChosen(event.target.value as PatchSize)}
        error={tooFine}
        helperText={
          tooFine
            ? `Too small for the device's ${formatScreen(screen)} ${screenUnit()}${suiting === undefined ? ': average several readings' : ''}`
            : `Aperture to ${formatLength(roomForAperture(needs))} ${lengthUnit()}, screens from ${formatScreen(Math.ceil(coarsestScreen(needs)))} ${screenUnit()}`
        }
        sx={{ width: 164 }}
      >
        {(Object.keys(PATCH_SIZES) as PatchSize[]).map((size) => (
          <MenuItem key={size} value={size}>
            {sidesOf(reader, size)}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
  return { form: paper === undefined ? undefined : { paper, reader, patchSize }, reader, fields };
}

function sidesOf(reader: ReaderKind, patchSize: PatchSize): string {
  const { patchLength, stripHeight } = needsOf({ reader, patchSize });
  return `${formatLength(patchLength)} × ${formatLength(stripHeight)} ${lengthUnit()}`;
}
