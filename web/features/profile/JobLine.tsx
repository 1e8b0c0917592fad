'use client';

import { CANCEL_JOB } from '@/endpoints/house';
import { Button } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useJobs } from '@/features/frame/useJobs';
import { problemWords, send } from '@/ui/api';

/** The profile that is being built for a condition, with its progress, or why it failed. */
export function JobLine({ conditionId }: { conditionId: number }) {
  const jobs = useJobs().filter((job) => job.conditionId === conditionId);
  const { enqueueSnackbar } = useSnackbar();
  const running = jobs.find(({ finishedMs }) => finishedMs === null);
  const last = jobs.at(-1);
  if (running !== undefined)
    return (
      <div className="panel row">
        <span>{running.words === '' ? 'Waiting for the runner' : running.words}</span>
        <div
          className="progress grow"
          role="progressbar"
          aria-label={running.kind === 'make-chart' ? 'Making the chart' : 'Building the profile'}
          aria-valuenow={Math.round(running.fraction * 100)}
          aria-valuemin={0}
          aria-valuemax={100}
        >
          <i style={{ width: `${running.fraction * 100}%` }} />
        </div>
        <Button
          size="small"
          onClick={() => {
            send(CANCEL_JOB, { params: { id: running.id } }).catch((error: unknown) =>
              enqueueSnackbar(problemWords(error), { variant: 'error' }),
            );
          }}
        >
          Cancel
        </Button>
      </div>
    );
  if (last?.state === 'failed')
    return (
      <p className="notice bad">
        {last.kind === 'make-chart' ? 'The chart could not be made' : 'The profile could not be built'}:{' '}
        {last.error} The readings are kept; try again.
      </p>
    );
  return null;
}
