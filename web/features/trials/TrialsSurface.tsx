'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import type { PaperTrial, PaperTrialRow } from '@melto/services/house/paperTrials';
import { BEGIN_TRIAL, REMOVE_TRIAL } from '@/endpoints/trials';
import { usePutAway } from '@/features/library/usePutAway';
import { send } from '@/ui/api';
import { formatDay } from '@/ui/format';
import { May } from '@/ui/May';
import { BeginTrial } from './BeginTrial';
import { TrialTable } from './TrialTable';

/** Papers compared by one chart on each of them, printed and read in one go. */
export function TrialsSurface({
  trials,
  shown,
  choices,
}: {
  trials: readonly PaperTrialRow[];
  shown: PaperTrial | undefined;
  choices: ConditionChoices;
}) {
  const router = useRouter();
  const put = usePutAway();
  const [beginning, setBeginning] = useState(false);
  const remove = ({ id, name }: PaperTrial): Promise<void> =>
    put(async (removed) => {
      await send(REMOVE_TRIAL, { params: { id }, body: { removed } });
      router.replace(removed ? '/library/trials' : `/library/trials?trial=${id}`);
    }, `${name} is off the list; its conditions, sheets and readings stay.`);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Paper trials</h1>
        <p className="quiet">One chart on many stocks, printed and read in one go: what each of them does.</p>
        {shown !== undefined && trials.length > 1 && (
          <TextField
            select
            size="small"
            label="Trial"
            value={trials.some(({ id }) => id === shown.id) ? shown.id : ''}
            onChange={(event) => router.push(`/library/trials?trial=${event.target.value}`)}
            sx={{ width: 260 }}
          >
            {trials.map(({ id, name, device, mode, madeMs }) => (
              <MenuItem key={id} value={id}>
                {name}{' '}
                <span className="quiet small">
                  {device}, {mode}, {formatDay(madeMs)}
                </span>
              </MenuItem>
            ))}
          </TextField>
        )}
        {shown !== undefined && shown.removedMs === null && (
          <May act={REMOVE_TRIAL}>
            <Button onClick={() => void remove(shown)}>Remove</Button>
          </May>
        )}
        <May act={BEGIN_TRIAL}>
          <Button
            variant="contained"
            disabled={choices.devices.length === 0}
            onClick={() => setBeginning(true)}
          >
            New trial
          </Button>
        </May>
      </div>
      {shown === undefined ? (
        <p className="quiet">
          No papers were compared yet. A trial prints one chart on each of them; conditions are made where
          there are none.
        </p>
      ) : (
        <TrialTable key={shown.id} trial={shown} />
      )}
      {beginning && <BeginTrial choices={choices} onClose={() => setBeginning(false)} />}
    </section>
  );
}
