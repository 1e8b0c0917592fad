'use client';

import { MenuItem, TextField } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import type { Printed } from '@melto/services/charts/printChart';
import type { JobMishap } from '@melto/services/conformity/jobCheck';
import { PRINT_JOB_CHECK } from '@/endpoints/charts';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { SheetFiles } from '@/features/charts/SheetFiles';
import { send } from '@/ui/api';
import { formatClock } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';

const HAPPENS: Readonly<Record<JobMishap, string>> = {
  right: 'all goes as it should',
  'no-profile': 'the job goes without any profile',
  twice: 'the profile is applied twice',
  intent: 'another intent is used',
  source: 'its sRGB is taken for a wider space',
};

/** Prints a picture as every job of the house is printed, to learn from the sheet how jobs are converted. */
export function JobCheckDialog({
  conditionId,
  simulated,
  onClose,
}: {
  conditionId: number;
  /** The device is a simulated one, which may do to a job what it is told. */
  simulated: boolean;
  onClose: () => void;
}) {
  const [intent, setIntent] = useState<ChainIntent | ''>('');
  const { form, fields } = useChartForm(conditionId);
  const [happens, setHappens] = useState<JobMishap>('right');
  const [made, setMade] = useState<Printed>();
  const queries = useQueryClient();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const print = async (): Promise<void> => {
    if (intent === '' || form === undefined) return;
    const printed = await send(PRINT_JOB_CHECK, {
      params: { id: conditionId },
      body: { intent, ...form, ...(simulated ? { happens } : {}) },
    });
    enqueueSnackbar(
      `${printed.sheets.join(', ')} on the rack, ready at ${formatClock(printed.restUntilMs)}.`,
    );
    await queries.invalidateQueries();
    router.refresh();
    if (simulated) onClose();
    else setMade(printed);
  };
  if (made !== undefined)
    return (
      <FormDialog title={`Print ${made.code}`} act="Done" out={null} onSubmit={onClose} onClose={onClose}>
        <p>
          Place the picture in a document of your own at 100 % and print it as every job is printed. It says
          that its values are sRGB. When it is measured, give the file at its sheet on the rack.
        </p>
        <ul>
          {made.sheets.map((code) => (
            <li key={code}>
              <b>{code}</b> <SheetFiles code={code} job />
            </li>
          ))}
        </ul>
      </FormDialog>
    );
  return (
    <FormDialog
      title="Job check"
      act={simulated ? 'Print' : 'Make the picture'}
      ready={intent !== '' && form !== undefined}
      onSubmit={print}
      onClose={onClose}
    >
      <p className="quiet small">
        A picture of sRGB that is placed in a document and printed as every job. Read back, it tells whether
        jobs reach the profile in force, and what happens to them where they do not.
      </p>
      <TextField
        select
        label="Intent of your jobs"
        value={intent}
        onChange={(event) => setIntent(event.target.value as ChainIntent)}
        helperText={intent === '' ? 'As your layout program or front end is set.' : ' '}
      >
        {(Object.keys(CHAIN_INTENTS) as ChainIntent[]).map((way) => (
          <MenuItem key={way} value={way}>
            {CHAIN_INTENTS[way].words}
          </MenuItem>
        ))}
      </TextField>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        {fields}
      </div>
      {simulated && (
        <TextField
          select
          label="Simulated device"
          value={happens}
          onChange={(event) => setHappens(event.target.value as JobMishap)}
        >
          {(Object.keys(HAPPENS) as JobMishap[]).map((way) => (
            <MenuItem key={way} value={way}>
              {HAPPENS[way]}
            </MenuItem>
          ))}
        </TextField>
      )}
    </FormDialog>
  );
}
