'use client';

import { TextField } from '@mui/material';

interface TextOf {
  readonly value: string;
  readonly onValue: (text: string) => void;
  readonly help?: string;
}

/** The house's own name of something in the library. */
export function NameField({ value, onValue, help }: TextOf) {
  return (
    <TextField
      label="Name"
      autoFocus
      value={value}
      onChange={(event) => onValue(event.target.value)}
      helperText={help}
      slotProps={{ htmlInput: { maxLength: 80 } }}
    />
  );
}

/** What the house notes of it. */
export function NoteField({ value, onValue, help }: TextOf) {
  return (
    <TextField
      label="Note"
      multiline
      minRows={2}
      value={value}
      onChange={(event) => onValue(event.target.value)}
      helperText={help}
      slotProps={{ htmlInput: { maxLength: 400 } }}
    />
  );
}
