'use client';

import { Button, Checkbox, Dialog, FormControlLabel, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { problemWords, sendJson } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { ZERO_READINGS } from '@melto/core/watch/watchFigures';
import type { WatchSurfaceProps } from './WatchSurface';

const MOST = 20;

/** Chooses the readings of the zero reading, how often to check, and the limits. */
export function StartWatchDialog({ condition, view, onClose }: WatchSurfaceProps & { onClose: () => void }) {
  const candidates = view.candidates.slice(0, MOST);
  const [picked, setPicked] = useState<readonly number[]>(
    candidates.slice(0, ZERO_READINGS).map(({ id }) => id),
  );
  const [every, setEvery] = useState(String(view.watch?.everyDays ?? 7));
  const [expires, setExpires] = useState(String(view.watch?.expiresDays ?? 14));
  const [mean, setMean] = useState(String(view.watch?.meanLimit ?? 1.5));
  const [largest, setLargest] = useState(String(view.watch?.largestLimit ?? 3));
  const [problem, setProblem] = useState<string>();
  const [sending, setSending] = useState(false);
  const router = useRouter();
  const whole = (text: string): boolean =>
    Number.isInteger(Number(text)) && Number(text) >= 1 && Number(text) <= 400;
  const size = (text: string): boolean => Number(text) > 0 && Number(text) <= 100;
  const expiresRight = whole(expires) && Number(expires) >= Number(every);
  const ready =
    picked.length >= ZERO_READINGS && whole(every) && expiresRight && size(mean) && size(largest) && !sending;
  const start = async (): Promise<void> => {
    setSending(true);
    try {
      await sendJson(`/api/conditions/${condition.id}/watch`, {
        everyDays: Number(every),
        expiresDays: Number(expires),
        meanLimit: Number(mean),
        largestLimit: Number(largest),
        readingIds: picked,
      });
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemWords(error));
      setSending(false);
    }
  };
  const field = (
    label: string,
    value: string,
    set: (value: string) => void,
    right: boolean,
    wrong: string,
  ) => (
    <TextField
      label={label}
      value={value}
      error={!right}
      helperText={right ? ' ' : wrong}
      onChange={(event) => set(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      sx={{ flex: 1 }}
    />
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="watch-title">
      <form
        style={{ padding: 20, display: 'grid', gap: 14 }}
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <h1 id="watch-title">{view.watch === null ? 'Start the watch' : 'Start the watch anew'}</h1>
        <p className="quiet small">
          The zero reading is the mean of at least three readings of the condition as it should stay.
        </p>
        <fieldset className="bare">
          <legend>Zero reading: {picked.length} readings</legend>
          {candidates.map(({ id, code, finishedMs }) => (
            <FormControlLabel
              key={id}
              control={
                <Checkbox
                  checked={picked.includes(id)}
                  onChange={(_, checked) =>
                    setPicked(checked ? [...picked, id] : picked.filter((other) => other !== id))
                  }
                />
              }
              label={
                <>
                  <span className="mono">{code}</span>{' '}
                  <span className="quiet">{formatMoment(finishedMs)}</span>
                </>
              }
            />
          ))}
        </fieldset>
        <div className="row" style={{ alignItems: 'flex-start' }}>
          {field('Check every, days', every, setEvery, whole(every), '1 to 400')}
          {field('Expires after, days', expires, setExpires, expiresRight, 'not before the next is due')}
        </div>
        <div className="row" style={{ alignItems: 'flex-start' }}>
          {field('Mean ΔE00 up to', mean, setMean, size(mean), 'over 0')}
          {field('Largest ΔE00 up to', largest, setLargest, size(largest), 'over 0')}
        </div>
        {problem !== undefined && <p className="error">{problem}</p>}
        <div className="row">
          <Button type="submit" variant="contained" disabled={!ready}>
            Start
          </Button>
          <Button onClick={onClose}>Not now</Button>
          {picked.length < ZERO_READINGS && <span className="quiet small">choose three or more</span>}
        </div>
      </form>
    </Dialog>
  );
}
