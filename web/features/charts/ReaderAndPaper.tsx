'use client';

import { MenuItem, TextField } from '@mui/material';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import { PaperField } from './PaperField';

const READERS: readonly (readonly [ReaderKind, string])[] = [
  ['strip', 'strip reader'],
  ['sheet', 'sheet reader'],
  ['spot', 'spot reader'],
];
/** The reader that a chart is laid out for, and the paper it stands on. */
export function ReaderAndPaper({
  reader,
  paper,
  onReader,
  onPaper,
}: {
  reader: ReaderKind;
  paper: PaperName;
  onReader: (reader: ReaderKind) => void;
  onPaper: (paper: PaperName) => void;
}) {
  return (
    <>
      <TextField
        select
        label="Read with"
        value={reader}
        onChange={(event) => onReader(event.target.value as ReaderKind)}
        sx={{ width: 160 }}
      >
        {READERS.map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <PaperField paper={paper} onPaper={onPaper} />
    </>
  );
}
