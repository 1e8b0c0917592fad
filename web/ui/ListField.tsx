'use client';

import { MenuItem, TextField } from '@mui/material';
import type { SxProps } from '@mui/material';
import { useColourLists } from './useColourLists';

/** Chooses a colour list of the library; nothing where it has none. */
export function ListField({
  value,
  onChoose,
  label = 'From the library',
  sx = { width: 220 },
}: {
  /** Number of the list; empty for none. */
  value: number | undefined;
  onChoose: (id: number) => void;
  label?: string;
  sx?: SxProps;
}) {
  const lists = useColourLists();
  if (lists.length === 0) return null;
  return (
    <TextField
      select
      size="small"
      label={label}
      value={lists.some(({ id }) => id === value) ? value : ''}
      onChange={(event) => onChoose(Number(event.target.value))}
      sx={sx}
    >
      {lists.map(({ id, name, count }) => (
        <MenuItem key={id} value={id}>
          {name}, {count} {count === 1 ? 'colour' : 'colours'}
        </MenuItem>
      ))}
    </TextField>
  );
}
