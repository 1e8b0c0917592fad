'use client';

import { START_WATCH } from '@/endpoints/watch';
import { Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole, numberOf } from '@/ui/numberOf';
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
  const router = useRouter();
  const whole = (text: string): boolean => isWhole(text, 1, 400);
  const size = (text: string): boolean => numberOf(text) > 0 && numberOf(text) <= 100;
  const expiresRight = whole(expires) && numberOf(expires) >= numberOf(every);
  const ready = picked.length >= ZERO_READINGS && whole(every) && expiresRight && size(mean) && size(largest);
  const start = async (): Promise<void> => {
    await send(START_WATCH, {
      params: { id: condition.id },
      body: {
        everyDays: numberOf(every),
        expiresDays: numberOf(expires),
        meanLimit: numberOf(mean),
        largestLimit: numberOf(largest),
        readingIds: picked,
      },
    });
    router.refresh();
    onClose();
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
    <FormDialog
      title={view.watch === null ? 'Start the watch' : 'Start the watch anew'}
      act="Start"
      ready={ready}
      beside={picked.length < ZERO_READINGS && <span className="quiet small">choose three or more</span>}
      onSubmit={start}
      onClose={onClose}
    >
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
                <span className="mono">{code}</span> <span className="quiet">{formatMoment(finishedMs)}</span>
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
    </FormDialog>
  );
}
