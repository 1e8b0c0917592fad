'use client';

import { MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { DESK_STATE, MAKE_DESK, SET_DESK_CODE, TAKE_DESK } from '@/endpoints/people';
import { ask, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';

const DIGITS = 6;

function CodeField(props: {
  label: string;
  value: string;
  onChange: (code: string) => void;
  autoFocus?: boolean;
}) {
  return (
    <TextField
      label={props.label}
      type="password"
      value={props.value}
      autoFocus={props.autoFocus}
      onChange={(event) => props.onChange(event.target.value.replace(/\D/g, ''))}
      slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off', maxLength: DIGITS } }}
    />
  );
}

/** Whoever works at a desk says who they are by their code: what is done from then on is done in their name. */
export function TakeDeskDialog({ desk, onClose }: { desk: string; onClose: () => void }) {
  const { data } = useQuery({ queryKey: ['desk'], queryFn: () => ask(DESK_STATE, {}) });
  const [person, setPerson] = useState(0);
  const [code, setCode] = useState('');
  return (
    <FormDialog
      title={`Take over ${desk}`}
      act="Take over"
      ready={person !== 0 && code.length === DIGITS}
      onClose={onClose}
      onSubmit={async () => {
        await send(TAKE_DESK, { body: { person, code } });
        // All that is shown is asked for again, in the name of whoever works here now.
        window.location.reload();
      }}
    >
      {data?.people.length === 0 ? (
        <p className="quiet">
          Nobody has a code yet. Sign in on a browser of your own, and set one in the menu under your name.
        </p>
      ) : (
        <TextField
          select
          label="You are"
          autoFocus
          value={person === 0 ? '' : String(person)}
          onChange={(event) => setPerson(Number(event.target.value))}
        >
          {(data?.people ?? []).map(({ id, name }) => (
            <MenuItem key={id} value={String(id)}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <CodeField label="Code" value={code} onChange={setCode} />
      <p className="quiet small">
        Yours for eight hours, until you leave it or somebody else takes it over. At a desk nobody changes
        aims, tolerances, limits or curves.
      </p>
    </FormDialog>
  );
}

/** Makes this browser a desk of the house. */
export function MakeDeskDialog({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState('');
  return (
    <FormDialog
      title="Make this browser a desk"
      act="Make it a desk"
      ready={name.trim() !== ''}
      onClose={onClose}
      onSubmit={async () => {
        await send(MAKE_DESK, { body: { name: name.trim() } });
        window.location.reload();
      }}
    >
      <TextField
        label="Name of the desk"
        value={name}
        autoFocus
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 60 } }}
      />
      <p className="quiet small">
        It stays signed in, and shows only, until somebody takes it over by their code. It ends when you sign
        out everywhere.
      </p>
    </FormDialog>
  );
}

/** Sets one's own code for desks. */
export function DeskCodeDialog({ onClose }: { onClose: () => void }) {
  const { enqueueSnackbar } = useSnackbar();
  const [told, setTold] = useState({ code: '', again: '' });
  const differs = told.again.length === DIGITS && told.again !== told.code;
  return (
    <FormDialog
      title="Your code for desks"
      act="Set it"
      ready={told.code.length === DIGITS && told.again === told.code}
      problem={differs ? 'The two differ.' : undefined}
      onClose={onClose}
      onSubmit={async () => {
        await send(SET_DESK_CODE, { body: { code: told.code } });
        enqueueSnackbar('Set. Desks take you by it from now on.');
        onClose();
      }}
    >
      <CodeField
        label="Code, six digits"
        value={told.code}
        autoFocus
        onChange={(code) => setTold({ ...told, code })}
      />
      <CodeField
        label="The same again"
        value={told.again}
        onChange={(again) => setTold({ ...told, again })}
      />
    </FormDialog>
  );
}
