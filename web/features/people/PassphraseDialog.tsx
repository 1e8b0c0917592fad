'use client';

import { TextField } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { CHANGE_PASSPHRASE } from '@/endpoints/people';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';

/** Changes one's own passphrase; everywhere else one is signed out. */
export function PassphraseDialog({ onClose }: { onClose: () => void }) {
  const { enqueueSnackbar } = useSnackbar();
  const [told, setTold] = useState({ before: '', passphrase: '', again: '' });
  const field = (name: keyof typeof told, label: string, autoComplete: string) => (
    <TextField
      label={label}
      type="password"
      value={told[name]}
      autoFocus={name === 'before'}
      onChange={(event) => setTold({ ...told, [name]: event.target.value })}
      slotProps={{ htmlInput: { autoComplete, maxLength: 200 } }}
    />
  );
  const differs = told.again !== '' && told.again !== told.passphrase;
  return (
    <FormDialog
      title="Change your passphrase"
      act="Change it"
      ready={told.before !== '' && told.passphrase !== '' && told.again === told.passphrase}
      problem={differs ? 'The two new ones differ.' : undefined}
      onClose={onClose}
      onSubmit={async () => {
        const { before, passphrase } = told;
        await send(CHANGE_PASSPHRASE, { body: { before, passphrase } });
        enqueueSnackbar('Changed. Everywhere else you are signed out.');
        onClose();
      }}
    >
      {field('before', 'Until now', 'current-password')}
      {field('passphrase', 'New, twelve letters at least', 'new-password')}
      {field('again', 'The same again', 'new-password')}
    </FormDialog>
  );
}
