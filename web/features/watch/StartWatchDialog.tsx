'use client';

import { START_RUN_WATCH, START_WATCH } from '@/endpoints/watch';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { send } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';
import { TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { numberOf } from '@/ui/numberOf';
import { RUN_CHECK_SHEETS } from '@melto/core/press/runFigures';
import { ZERO_READINGS } from '@melto/core/watch/watchFigures';
import type { WatchSurfaceProps } from './WatchSurface';

const MOST = 20;

/** Chooses the readings of the zero reading, how often to check, and the limits. */
export function StartWatchDialog({ condition, view, onClose }: WatchSurfaceProps & { onClose: () => void }) {
  const watch = view.watch;
  const canRuns = view.runs.length >= ZERO_READINGS;
  const canWedges = view.candidates.length >= ZERO_READINGS;
  const [byRuns, setByRuns] = useState(watch?.byRuns === true || !canWedges);
  const candidates = byRuns
    ? view.runs.map(({ id, jobNumber, madeMs }) => ({ id, name: jobNumber, atMs: madeMs }))
    : view.candidates.map(({ id, code, finishedMs }) => ({ id, name: code, atMs: finishedMs }));
  const proposed = (runs: boolean): number[] =>
    (runs ? view.runs : view.candidates)
      .filter(
        // The zero is the condition as it should stay: what has moved is not proposed for it.
        ({ id }) =>
          !view.checks.some(({ readingId, runId, moved }) => moved && (runs ? runId : readingId) === id),
      )
      .slice(0, ZERO_READINGS)
      .map(({ id }) => id);
  const form = useBodyForm(
    START_WATCH.body,
    {
      everyDays: String(watch?.everyDays ?? 7),
      expiresDays: String(watch?.expiresDays ?? 14),
      meanLimit: String(watch?.meanLimit ?? 1.5),
      largestLimit: String(watch?.largestLimit ?? 3),
      picked: proposed(byRuns),
    },
    ({ everyDays, expiresDays, meanLimit, largestLimit, picked: ids }) => ({
      ...{ everyDays: numberOf(everyDays), expiresDays: numberOf(expiresDays) },
      ...{ meanLimit: numberOf(meanLimit), largestLimit: numberOf(largestLimit) },
      readingIds: ids,
    }),
    {
      words: { everyDays: '1 to 400', meanLimit: 'over 0', largestLimit: 'over 0' },
      also: (values) =>
        numberOf(values.expiresDays) >= numberOf(values.everyDays)
          ? {}
          : { expiresDays: 'not before the next is due' },
    },
  );
  const picked = form.values.picked;
  const router = useRouter();
  const start = async (): Promise<void> => {
    const { readingIds, ...schedule } = form.body();
    const params = { id: condition.id };
    await (byRuns
      ? send(START_RUN_WATCH, { params, body: { ...schedule, runIds: readingIds } })
      : send(START_WATCH, { params, body: { ...schedule, readingIds } }));
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
        The zero reading is the mean of at least three {byRuns ? 'finished runs' : 'readings'} of the
        condition as it should stay.
        {byRuns &&
          ` Each run that is finished later is a check, where it has the same aims, curves and mode. Runs of fewer than ${RUN_CHECK_SHEETS} sheets of production, or printed to an OK sheet outside of the aims, are left out.`}
      </p>
      {canRuns && canWedges && (
        <TextField
          select
          size="small"
          label="Zero reading from"
          value={byRuns ? 'runs' : 'wedges'}
          onChange={(event) => {
            const runs = event.target.value === 'runs';
            setByRuns(runs);
            form.setValue('picked', proposed(runs), { shouldValidate: true });
          }}
        >
          <MenuItem value="wedges">readings of the watch wedge</MenuItem>
          <MenuItem value="runs">runs on the press</MenuItem>
        </TextField>
      )}
      <fieldset className="bare">
        <legend>
          Zero reading: {picked.length} {byRuns ? 'runs' : 'readings'}
        </legend>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr' }}>
          {candidates.slice(0, MOST).map(({ id, name, atMs }) => (
            <FormControlLabel
              key={id}
              control={
                <Checkbox
                  checked={picked.includes(id)}
                  onChange={(_, checked) =>
                    form.setValue(
                      'picked',
                      checked ? [...picked, id] : picked.filter((other) => other !== id),
                      { shouldValidate: true },
                    )
                  }
                />
              }
              label={
                <>
                  <span className="mono">{name}</span> <span className="quiet">{formatMoment(atMs)}</span>
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
