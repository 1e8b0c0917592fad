'use client';

import { TextField } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from '@/ui/FormDialog';

/** Names something of the library and notes what people should know of it. */
export function NameDialog({
  item,
  nameHelp,
  noteHelp,
  mostName,
  onKeep,
  onClose,
}: {
  item: { readonly name: string; readonly note: string };
  nameHelp: string;
  noteHelp: string;
  /** Longest name. */
  mostName: number;
  onKeep: (words: { readonly name: string; readonly note: string }) => Promise<void>;
  onClose: () => void;
}) {
  const [name, setName] = useState(item.name);
  const [note, setNote] = useState(item.note);
  return (
    <FormDialog
      title={`Name ${item.name}`}
      act="Keep it"
      ready={name.trim() !== ''}
      onClose={onClose}
      onSubmit={async () => {
        await onKeep({ name: name.trim(), note: note.trim() });
        onClose();
      }}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
        helperText={nameHelp}
        slotProps={{ htmlInput: { maxLength: mostName } }}
      />
      <TextField
        label="Note"
        multiline
        minRows={2}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        helperText={noteHelp}
        slotProps={{ htmlInput: { maxLength: 400 } }}
      />
    </FormDialog>
  );
}
