'use client';

import { ListSubheader, MenuItem, TextField } from '@mui/material';
import type { ProfileSource } from './profileSource';

/** Chooses a profile of the shelf, or one of one's own files. */
export function ProfileField({
  label,
  value,
  sources,
  width = 300,
  none,
  onChoose,
}: {
  label: string;
  value: string;
  sources: readonly ProfileSource[];
  width?: number | string;
  /** What is said where none is chosen, which can be chosen then. */
  none?: string;
  onChoose: (key: string) => void;
}) {
  const groups = [...new Set(sources.map(({ group }) => group))];
  return (
    <TextField
      select
      label={label}
      value={sources.some(({ key }) => key === value) ? value : ''}
      onChange={(event) => onChoose(event.target.value)}
      sx={{ width }}
    >
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {groups.flatMap((group) => [
        <ListSubheader key={group}>{group}</ListSubheader>,
        ...sources
          .filter((source) => source.group === group)
          .map(({ key, label: name }) => (
            <MenuItem key={key} value={key}>
              {name}
            </MenuItem>
          )),
      ])}
    </TextField>
  );
}
