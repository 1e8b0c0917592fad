'use client';

import { MenuItem, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import type { Printed } from '@melto/services/charts/printChart';
import type { JobMishap } from '@melto/services/conformity/jobCheck';
import { PRINT_JOB_CHECK, SOURCE_PROFILES, TAKE_SOURCE_PROFILE } from '@/endpoints/charts';
import { useChartForm } from '@/features/charts/ChartFormFields';
import { SheetFiles } from '@/features/charts/SheetFiles';
import { ask, problemWords, send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { formatClock } from '@/ui/format';
import { FormDialog } from '@/ui/FormDialog';

const HAPPENS: Readonly<Record<JobMishap, string>> = {
  right: 'all goes as it should',
  'no-profile': 'the job goes without any profile',
  twice: 'the profile is applied twice',
  intent: 'another intent is used',
  source: 'its values are taken for another space',
};

/** In the list of sources, where the others are ids. */
const SRGB = 0;

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
  const [sourceId, setSourceId] = useState<number>(SRGB);
  const [problem, setProblem] = useState<string>();
  const { data: sources } = useQuery({
    queryKey: ['source-profiles'],
    queryFn: () => ask(SOURCE_PROFILES, {}),
  });
  const [happens, setHappens] = useState<JobMishap>('right');
  const [made, setMade] = useState<Printed>();
  const queries = useQueryClient();
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const take = (file: File): void => {
    setProblem(undefined);
    send(TAKE_SOURCE_PROFILE, { query: { name: file.name.slice(0, 200) }, body: file })
      .then(async ({ id }) => {
        await queries.invalidateQueries({ queryKey: ['source-profiles'] });
        setSourceId(id);
      })
      .catch((error: unknown) => setProblem(problemWords(error)));
  };
  const print = async (): Promise<void> => {
    if (intent === '' || form === undefined) return;
    const printed = await send(PRINT_JOB_CHECK, {
      params: { id: conditionId },
      body: {
        intent,
        ...form,
        ...(sourceId === SRGB ? {} : { sourceId }),
        ...(simulated ? { happens } : {}),
      },
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
          what its values are meant by. When it is measured, give the file at its sheet on the rack.
        </p>
        <ul>
          {made.sheets.map((code) => (
            <li key={code}>
              <b>{code}</b> <SheetFiles code={code} job={sourceId === SRGB ? 'RGB' : 'CMYK'} />
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
      problem={problem}
      onSubmit={print}
      onClose={onClose}
    >
      <p className="quiet small">
        A picture of sRGB or of CMYK that is placed in a document and printed as every job. Read back, it
        tells whether jobs reach the profile in force, and what happens to them where they do not.
      </p>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextField
          select
          label="Your jobs are"
          value={sourceId}
          onChange={(event) => setSourceId(Number(event.target.value))}
          sx={{ flex: 1 }}
        >
          <MenuItem value={SRGB}>pictures of sRGB</MenuItem>
          {(sources ?? []).map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              CMYK meant by {name}
            </MenuItem>
          ))}
        </TextField>
        <FileButton label="Take a CMYK profile" accept=".icc,.icm" onFile={take} />
      </div>
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
