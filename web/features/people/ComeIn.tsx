'use client';

import { Button, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import type { FormEvent, ReactNode } from 'react';
import { FIRST_PERSON, SIGN_IN } from '@/endpoints/people';
import { send } from '@/ui/api';
import { useSending } from '@/ui/useSending';
import { comeInByPasskey, hasPasskeys } from './devicePasskeys';

/** The door of a house: who comes in, and by which passphrase. */
export function SignIn({ back = '/' }: { back?: string }) {
  // What the browser has is known in it alone: the server draws the door without.
  const [device, setDevice] = useState(false);
  useEffect(() => setDevice(hasPasskeys()), []);
  return (
    <Door
      title="Sign in"
      byDevice={device ? comeInByPasskey : undefined}
      act="Sign in"
      onCome={(name, passphrase) => send(SIGN_IN, { body: { name, passphrase } })}
      onIn={() => window.location.assign(ownPath(back))}
    >
      <p className="quiet">Whoever keeps the house gives a name and a first passphrase.</p>
    </Door>
  );
}

/** An empty house gets its first person, who keeps it. */
export function FirstPerson() {
  return (
    <Door
      title="The first person of this house"
      act="Begin"
      again
      onCome={(name, passphrase) => send(FIRST_PERSON, { body: { name, passphrase } })}
      onIn={() => window.location.assign('/')}
    >
      <p className="quiet">
        You keep the house: you say who else comes in and what they may do. A passphrase has twelve letters at
        least; a few words that only you put together are easy to keep. Nobody can look it up for you.
      </p>
    </Door>
  );
}

/** A path of this server: an address that was handed in leads nowhere else. */
export const ownPath = (path: string): string => (/^\/(?![/\\])/.test(path) ? path : '/');

function Door({
  title,
  act,
  again = false,
  byDevice,
  children,
  onCome,
  onIn,
}: {
  title: string;
  act: string;
  /** A new passphrase is typed twice. */
  again?: boolean;
  /** Comes in by what the device proves; undefined where there are no passkeys. */
  byDevice?: () => Promise<unknown>;
  children: ReactNode;
  onCome: (name: string, passphrase: string) => Promise<unknown>;
  onIn: () => void;
}) {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [second, setSecond] = useState('');
  const { sending, problem, run } = useSending();
  const differs = again && second !== '' && second !== passphrase;
  const ready = name.trim() !== '' && passphrase !== '' && (!again || second === passphrase);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (ready)
      void run(async () => {
        await onCome(name.trim(), passphrase);
        onIn();
      });
  };
  return (
    <form className="panel door" onSubmit={submit}>
      <p className="mark">Melto</p>
      <h1>{title}</h1>
      {children}
      <TextField
        label="Name"
        value={name}
        autoFocus
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { autoComplete: 'username', maxLength: 120 } }}
      />
      <TextField
        label="Passphrase"
        type="password"
        value={passphrase}
        onChange={(event) => setPassphrase(event.target.value)}
        slotProps={{
          htmlInput: { autoComplete: again ? 'new-password' : 'current-password', maxLength: 200 },
        }}
      />
      {again && (
        <TextField
          label="The same again"
          type="password"
          value={second}
          error={differs}
          helperText={differs ? 'It differs from the one above' : undefined}
          onChange={(event) => setSecond(event.target.value)}
          slotProps={{ htmlInput: { autoComplete: 'new-password', maxLength: 200 } }}
        />
      )}
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <Button type="submit" variant="contained" disabled={!ready || sending}>
        {act}
      </Button>
      {byDevice !== undefined && (
        <Button
          disabled={sending}
          onClick={() =>
            void run(async () => {
              await byDevice();
              onIn();
            })
          }
        >
          Sign in by a passkey
        </Button>
      )}
    </form>
  );
}
