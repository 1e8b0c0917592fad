'use client';

import { MenuItem, TextField } from '@mui/material';
import type { PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';

const READERS: readonly (readonly [ReaderKind, string])[] = [
  ['strip', 'strip reader'],
  ['sheet', 'sheet reader'],
  ['spot', 'spot reader'],
];
const PAPERS: readonly (readonly [PaperName, string])[] = [
  ['a4', 'A4'],
  ['letter', 'Letter'],
  ['a3', 'A3'],
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
      <TextField
        select
        label="Paper"
        value={paper}
        onChange={(event) => onPaper(event.target.value as PaperName)}
        sx={{ width: 110 }}
      >
        {PAPERS.map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
}
