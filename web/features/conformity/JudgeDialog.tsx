'use client';

import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { problemWords, sendJson } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { CheckChoiceFields, choiceOf, firstChoice } from './CheckChoiceFields';
import type { ConformitySurfaceProps } from './ConformitySurface';

/** Judges a reading that is there, by other aims or tolerances; the report says that they were chosen after it. */
export function JudgeDialog({
  condition,
  aims,
  tolerances,
  readings,
  result,
  onClose,
}: ConformitySurfaceProps & { onClose: () => void }) {
  const [choice, setChoice] = useState(() => firstChoice(aims, tolerances, choiceOf(result?.detail)));
  const [readingId, setReadingId] = useState(readings[0]?.id ?? 0);
  const [problem, setProblem] = useState<string>();
  const [sending, setSending] = useState(false);
  const router = useRouter();
  const judge = async (): Promise<void> => {
    setSending(true);
    try {
      await sendJson(`/api/conditions/${condition.id}/checks`, { readingId, ...choice });
      router.replace(`/conditions/${condition.id}/conformity`);
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
      setSending(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="judge-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          void judge();
        }}
      >
        <h1 id="judge-title">Judge a reading</h1>
        <p className="quiet small">
          The choice is made before reading as a rule; this check will say that it was made after it.
        </p>
        <TextField
          select
          label="Reading"
          value={readingId}
          onChange={(event) => setReadingId(Number(event.target.value))}
        >
          {readings.map(({ id, code, title, finishedMs }) => (
            <MenuItem key={id} value={id}>
              {code}, {title}, {formatMoment(finishedMs)}
            </MenuItem>
          ))}
        </TextField>
        <CheckChoiceFields choice={choice} aims={aims} tolerances={tolerances} onChange={setChoice} />
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={sending}>
            Judge
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}
