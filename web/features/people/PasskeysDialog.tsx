'use client';

import { Button, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { PASSKEYS, REMOVE_PASSKEY } from '@/endpoints/people';
import { ask, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { formatMoment } from '@/ui/format';
import { useSending } from '@/ui/useSending';
import { addPasskey } from './devicePasskeys';

/** One's own passkeys: what is there, one more of this device, and away with one. */
export function PasskeysDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { data: kept } = useQuery({ queryKey: ['passkeys'], queryFn: () => ask(PASSKEYS, {}) });
  const [name, setName] = useState('');
  const { problem, run } = useSending();
  const anew = () => queries.invalidateQueries({ queryKey: ['passkeys'] });
  return (
    <FormDialog
      title="Your passkeys"
      act="Add one of this device"
      out="Done"
      ready={name.trim() !== ''}
      problem={problem}
      onClose={onClose}
      onSubmit={async () => {
        await addPasskey(name.trim());
        setName('');
        await anew();
      }}
    >
      <p className="quiet small">
        With a passkey you sign in by your finger, your face or the code of your device, in place of the
        passphrase.
      </p>
      {kept?.map(({ id, name: called, madeMs, usedMs }) => (
        <div key={id} className="row" style={{ justifyContent: 'space-between' }}>
          <span>
            <b>{called}</b>{' '}
            <span className="quiet small">
              {usedMs === null ? `added ${formatMoment(madeMs)}` : `used ${formatMoment(usedMs)}`}
            </span>
          </span>
          <Button
            size="small"
            aria-label={`Take ${called} away`}
            onClick={() => void run(() => send(REMOVE_PASSKEY, { params: { id } }).then(anew))}
          >
            Take away
          </Button>
        </div>
      ))}
      <TextField
        label="Name of this device"
        value={name}
        autoFocus
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 80 } }}
      />
    </FormDialog>
  );
}
