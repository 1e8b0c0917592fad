'use client';

import { SIMULATED_CHANGES } from '@/endpoints/conditions';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { ChangeKind, SimulatedChange } from '@melto/core/device/printPath';
import { problemWords, send } from '@/ui/api';
import { formatDay } from '@/ui/format';

const WORDS: Readonly<Record<ChangeKind, string>> = {
  'ink-lot': 'a new lot of an ink',
  'ageing-head': 'a head that ages, week by week',
  'stock-lot': 'a new lot of stock',
  zone: 'one third of the width gets less of an ink',
  instrument: 'the instrument reads otherwise',
};
const INKS = ['cyan', 'magenta', 'yellow', 'black'];
const OF_AN_INK: readonly ChangeKind[] = ['ink-lot', 'ageing-head', 'zone'];

/** Lets something happen at the simulated device, to see what the watch makes of it. */
export function SimulatedChanges({
  conditionId,
  changes,
}: {
  conditionId: number;
  changes: readonly SimulatedChange[];
}) {
  const [kind, setKind] = useState<ChangeKind>('ink-lot');
  const [ink, setInk] = useState(1);
  const { enqueueSnackbar } = useSnackbar();
  const router = useRouter();
  const change = async (body: { kind?: ChangeKind; ink?: number }): Promise<void> => {
    try {
      await send(SIMULATED_CHANGES, { params: { id: conditionId }, body });
      router.refresh();
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return (
    <details className="panel">
      <summary>
        <b>Simulated device</b>{' '}
        <span className="quiet">
          {changes.length === 0
            ? 'let something happen, to see what the watch makes of it'
            : changes
                .map(
                  (change) =>
                    `${WORDS[change.kind]}${OF_AN_INK.includes(change.kind) ? ` (${INKS[change.ink]})` : ''} since ${formatDay(change.fromMs)}`,
                )
                .join('; ')}
        </span>
      </summary>
      <div className="row" style={{ marginTop: 14 }}>
        <TextField
          select
          label="What happens"
          value={kind}
          onChange={(event) => setKind(event.target.value as ChangeKind)}
          sx={{ width: 330 }}
        >
          {(Object.keys(WORDS) as ChangeKind[]).map((each) => (
            <MenuItem key={each} value={each}>
              {WORDS[each]}
            </MenuItem>
          ))}
        </TextField>
        {OF_AN_INK.includes(kind) && (
          <TextField
            select
            label="Ink"
            value={ink}
            onChange={(event) => setInk(Number(event.target.value))}
            sx={{ width: 130 }}
          >
            {INKS.map((name, index) => (
              <MenuItem key={name} value={index}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button onClick={() => void change({ kind, ink })}>Let it happen now</Button>
        {changes.length > 0 && <Button onClick={() => void change({})}>Put it right</Button>}
      </div>
    </details>
  );
}
