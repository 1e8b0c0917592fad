'use client';

import { TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { NOTE_RESULT } from '@/endpoints/conformity';
import { send } from '@/ui/api';
import { May } from '@/ui/May';
import { FormDialog } from '@/ui/FormDialog';

/** What a person notes of a check; it goes into the report. */
export function ResultNote({ id, note }: { id: number; note: string }) {
  const router = useRouter();
  const [text, setText] = useState<string>();
  return (
    <p className="small">
      {note !== '' && (
        <>
          <b>Note:</b> {note}{' '}
        </>
      )}
      <May act={NOTE_RESULT}>
        <button type="button" className="plain" onClick={() => setText(note)}>
          <u>{note === '' ? 'Add a note' : 'Change it'}</u>
        </button>
      </May>
      {text !== undefined && (
        <FormDialog
          title="Note on this check"
          act="Keep it"
          ready={text.trim() !== note}
          onClose={() => setText(undefined)}
          onSubmit={async () => {
            await send(NOTE_RESULT, { params: { id }, body: { note: text.trim() } });
            setText(undefined);
            router.refresh();
          }}
        >
          <TextField
            label="Note"
            helperText="It goes into the report; what was judged stays as it is"
            autoFocus
            multiline
            minRows={3}
            value={text}
            onChange={(event) => setText(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 1000 } }}
          />
        </FormDialog>
      )}
    </p>
  );
}
