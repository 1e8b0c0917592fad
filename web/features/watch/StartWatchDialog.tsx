'use client';

import { START_WATCH } from '@/endpoints/watch';
import { Checkbox, FormControlLabel } from '@mui/material';
import { useRouter } from 'next/navigation';
import { send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { numberOf } from '@/ui/numberOf';
import { ZERO_READINGS } from '@melto/core/watch/watchFigures';
import type { WatchSurfaceProps } from './WatchSurface';

const MOST = 20;

/** Chooses the readings of the zero reading, how often to check, and the limits. */
export function StartWatchDialog({ condition, view, onClose }: WatchSurfaceProps & { onClose: () => void }) {
  const candidates = view.candidates.slice(0, MOST);
  const watch = view.watch;
  const form = useBodyForm(
    START_WATCH.body,
    {
      everyDays: String(watch?.everyDays ?? 7),
      expiresDays: String(watch?.expiresDays ?? 14),
      meanLimit: String(watch?.meanLimit ?? 1.5),
      largestLimit: String(watch?.largestLimit ?? 3),
      // The zero is the condition as it should stay: what has moved is not proposed for it.
      readingIds: candidates
        .filter(({ id }) => !view.checks.some(({ readingId, moved }) => moved && readingId === id))
        .slice(0, ZERO_READINGS)
        .map(({ id }) => id),
    },
    ({ everyDays, expiresDays, meanLimit, largestLimit, readingIds }) => ({
      ...{ everyDays: numberOf(everyDays), expiresDays: numberOf(expiresDays) },
      ...{ meanLimit: numberOf(meanLimit), largestLimit: numberOf(largestLimit), readingIds },
    }),
    {
      words: { everyDays: '1 to 400', meanLimit: 'over 0', largestLimit: 'over 0' },
      also: (values) =>
        numberOf(values.expiresDays) >= numberOf(values.everyDays)
          ? {}
          : { expiresDays: 'not before the next is due' },
    },
  );
  const picked = form.values.readingIds;
  const router = useRouter();
  const start = async (): Promise<void> => {
    await send(START_WATCH, { params: { id: condition.id }, body: form.body() });
    router.refresh();
    onClose();
  };
  const field = (name: 'everyDays' | 'expiresDays' | 'meanLimit' | 'largestLimit', label: string) => (
    <TextIn form={form} name={name} label={label} sx={{ flex: 1 }} />
  );
  return (
    <FormDialog
      title={view.watch === null ? 'Start the watch' : 'Start the watch anew'}
      act="Start"
      ready={form.ready}
      beside={picked.length < ZERO_READINGS && <span className="quiet small">choose three or more</span>}
      onSubmit={start}
      onClose={onClose}
    >
      <p className="quiet small">
        The zero reading is the mean of at least three readings of the condition as it should stay.
      </p>
      <fieldset className="bare">
        <legend>Zero reading: {picked.length} readings</legend>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr' }}>
          {candidates.map(({ id, code, finishedMs }) => (
            <FormControlLabel
              key={id}
              control={
                <Checkbox
                  checked={picked.includes(id)}
                  onChange={(_, checked) =>
                    form.setValue(
                      'readingIds',
                      checked ? [...picked, id] : picked.filter((other) => other !== id),
                      { shouldValidate: true },
                    )
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
        </div>
      </fieldset>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {field('everyDays', 'Check every, days')}
        {field('expiresDays', 'Expires after, days')}
      </div>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {field('meanLimit', 'Mean ΔE00 up to')}
        {field('largestLimit', 'Largest ΔE00 up to')}
      </div>
    </FormDialog>
  );
}
