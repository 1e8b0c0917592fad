'use client';

import { CANCEL_JOB } from '@/endpoints/house';
import { Button, Popover } from '@mui/material';
import { Link } from '@/ui/Link';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { JobRow } from '@melto/services/kernel/jobs';
import { problemWords, send } from '@/ui/api';
import { useJobs } from './useJobs';

const KIND_WORDS: Readonly<Record<string, string>> = {
  'build-profile': 'Profile',
  'make-chart': 'Chart',
  'paper-trial': 'Paper trial',
  'sample-house': 'Sample house',
};

export function JobsMenu() {
  const jobs = useJobs();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const open = jobs.filter(({ finishedMs }) => finishedMs === null);
  const first = open[0];
  return (
    <>
      <Button
        variant="text"
        size="small"
        aria-haspopup="dialog"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ fontSize: 13, fontWeight: 400, px: 1 }}
      >
        {first === undefined
          ? 'no work'
          : `${KIND_WORDS[first.kind] ?? first.kind} ${Math.round(first.fraction * 100)} %${open.length > 1 ? ` +${open.length - 1}` : ''}`}
      </Button>
      <Popover
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <ul style={{ width: 380, padding: 12, display: 'grid', gap: 12 }} aria-label="Background work">
          {jobs.length === 0 && <li className="quiet">Nothing runs, nothing ended lately.</li>}
          {[...jobs].reverse().map((job) => (
            <JobItem key={job.id} job={job} onLeave={() => setAnchor(null)} />
          ))}
        </ul>
      </Popover>
    </>
  );
}

function JobItem({ job, onLeave }: { job: JobRow; onLeave: () => void }) {
  const { enqueueSnackbar } = useSnackbar();
  const running = job.finishedMs === null;
  const cancel = (): void => {
    send(CANCEL_JOB, { params: { id: job.id } }).catch((error: unknown) =>
      enqueueSnackbar(problemWords(error), { variant: 'error' }),
    );
  };
  return (
    <li>
      <div className="row">
        <b className="grow">{KIND_WORDS[job.kind] ?? job.kind}</b>
        {running ? (
          <Button size="small" onClick={cancel}>
            Cancel
          </Button>
        ) : (
          <span className="quiet small">{job.state}</span>
        )}
      </div>
      {running && (
        <>
          <div
            className="progress"
            role="progressbar"
            aria-valuenow={Math.round(job.fraction * 100)}
            aria-valuemin={0}
            aria-valuemax={100}
          >
            <i style={{ width: `${job.fraction * 100}%` }} />
          </div>
          <span className="quiet small">{job.words}</span>
        </>
      )}
      {job.error !== null && <p className="error small">{job.error}</p>}
      {job.resultId !== null && job.conditionId !== null && (
        <Link href={`/conditions/${job.conditionId}/profile?version=${job.resultId}`} onClick={onLeave}>
          Open the result
        </Link>
      )}
    </li>
  );
}
