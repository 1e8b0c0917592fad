'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { KEPT_ORIGINS } from '@melto/core/profile/keptOrigin';
import type { KeptOrigin } from '@melto/core/profile/keptOrigin';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { CHANGE_KEPT_PROFILE, KEEP_PROFILE, PUT_KEPT_PROFILE_AWAY } from '@/endpoints/profile';
import { usePutAway } from '@/features/library/usePutAway';
import { problemWords, send } from '@/ui/api';

export const ORIGIN_WORDS: Readonly<Record<KeptOrigin, string>> = {
  maker: 'the device’s maker',
  'paper seller': 'the paper’s seller',
  service: 'a service',
  other: 'elsewhere',
};
const MOST_NOTE = 2000;

interface KeptChoice {
  readonly origin: KeptOrigin | '';
  readonly note: string;
}

/** Asks where a dropped file is from, and keeps it on the shelf. */
export function KeepProfile({ file, onKept }: { file: File; onKept: (key: string) => void }) {
  const router = useRouter();
  return (
    <KeptForm
      start={{ origin: '', note: '' }}
      act="Keep it on the shelf"
      onSend={async ({ origin, note }) => {
        const { id } = await send(KEEP_PROFILE, {
          query: { name: file.name, origin, note },
          body: file,
        });
        router.refresh();
        onKept(`kept-${id}`);
      }}
    />
  );
}

/** What is said of a kept profile, to be changed; it can be taken off the shelf. */
export function ChangeKept({
  own: { name, note, kept },
}: {
  own: Pick<ShelfProfile, 'name' | 'note' | 'kept'>;
}) {
  const router = useRouter();
  const putAway = usePutAway();
  if (kept === null) return null;
  return (
    <KeptForm
      start={{ origin: kept.origin, note }}
      act="Keep the change"
      onSend={async (body) => {
        await send(CHANGE_KEPT_PROFILE, { params: { id: kept.id }, body });
        router.refresh();
      }}
    >
      <Button
        size="small"
        onClick={() =>
          void putAway(
            (away) => send(PUT_KEPT_PROFILE_AWAY, { params: { id: kept.id }, body: { away } }),
            `${name} is off the shelf.`,
          )
        }
      >
        Take it off the shelf
      </Button>
    </KeptForm>
  );
}

function KeptForm({
  start,
  act,
  onSend,
  children,
}: {
  start: KeptChoice;
  act: string;
  onSend: (told: { origin: KeptOrigin; note: string }) => Promise<void>;
  children?: ReactNode;
}) {
  const [{ origin, note }, setChoice] = useState(start);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const changed = origin !== start.origin || note !== start.note;
  const submit = async (): Promise<void> => {
    if (origin === '') return;
    setBusy(true);
    setProblem(undefined);
    try {
      await onSend({ origin, note });
    } catch (error) {
      setProblem(problemWords(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <div className="row" style={{ flexWrap: 'wrap', gap: 12 }}>
        <TextField
          select
          label="It is from"
          value={origin}
          sx={{ width: 200 }}
          onChange={(event) => setChoice({ origin: event.target.value as KeptOrigin, note })}
        >
          {KEPT_ORIGINS.map((word) => (
            <MenuItem key={word} value={word}>
              {ORIGIN_WORDS[word]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Note"
          value={note}
          sx={{ flex: '1 1 200px', width: 'auto' }}
          slotProps={{ htmlInput: { maxLength: MOST_NOTE } }}
          onChange={(event) => setChoice({ origin, note: event.target.value })}
        />
        <Button type="submit" variant="outlined" disabled={busy || origin === '' || !changed}>
          {act}
        </Button>
        {children}
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
    </form>
  );
}
