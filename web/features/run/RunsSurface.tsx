'use client';

import { Button, Checkbox, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MOST_COMPARED } from '@melto/core/press/scopes';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { ColourListRow } from '@melto/services/lists/colourLists';
import type { PressChoice } from '@melto/services/press/pressChoices';
import type { Page } from '@melto/services/kernel/page';
import type { RunRow } from '@melto/services/press/runs';
import type { RunView } from '@melto/services/press/runView';
import { CREATE_RUN, RUNS } from '@/endpoints/runs';
import { formatWhen } from '@/ui/format';
import { Link } from '@/ui/Link';
import { May } from '@/ui/May';
import { useOlder } from '@/ui/useOlder';
import { useDomainNow } from '@/features/frame/useHouse';
import { NewRunDialog } from './NewRunDialog';

/** Runs of the house, found by what they are known by. */
export function RunsSurface({
  page: first,
  find,
  from,
  presses,
  aims,
  lists,
}: {
  page: Page<RunRow>;
  find: string;
  /** The run that another is started from. */
  from: RunView | undefined;
  presses: readonly PressChoice[];
  aims: readonly AimSetView[];
  lists: readonly ColourListRow[];
}) {
  const router = useRouter();
  const [typed, setTyped] = useState(find);
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [beginning, setBeginning] = useState(from !== undefined);
  const now = useDomainNow();
  const { rows, older } = useOlder(first, RUNS, {}, find);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Runs</h1>
        <p className="quiet">Jobs on the press, read by their colour bars sheet by sheet.</p>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            router.push(typed.trim() === '' ? '/runs' : `/runs?find=${encodeURIComponent(typed.trim())}`);
          }}
        >
          <TextField
            label="Find"
            placeholder="number, title, customer, press"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            sx={{ width: 260 }}
          />
        </form>
        {chosen.length > 0 && (
          <Button
            component={Link}
            href={`/runs/compare?runs=${chosen.join(',')}`}
            disabled={chosen.length < 2}
          >
            Compare {chosen.length}
          </Button>
        )}
        <Button component={Link} href="/library/feeds">
          Feeds
        </Button>
        <May act={CREATE_RUN}>
          <Button variant="contained" disabled={presses.length === 0} onClick={() => setBeginning(true)}>
            New run
          </Button>
        </May>
      </div>
      {rows.length === 0 ? (
        <p className="quiet">
          {find === ''
            ? presses.length === 0
              ? 'No condition of a press is known yet: make one on the floor first.'
              : 'No run yet. A run has its inks by unit, a colour bar and aims; sheets then say what to move.'
            : `No run is known by “${find}”.`}
        </p>
      ) : (
        <table className="table">
          <thead>
            <tr>
              <th aria-label="Compare" />
              <th>Job</th>
              <th>Title</th>
              <th>Condition</th>
              <th>Side</th>
              <th>Phase</th>
              <th className="num">Sheets</th>
              <th className="num">Impressions</th>
              <th className="num">Patches within, %</th>
              <th>Begun</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((run) => (
              <tr key={run.id}>
                <td>
                  <Checkbox
                    size="small"
                    checked={chosen.includes(run.id)}
                    disabled={!chosen.includes(run.id) && chosen.length >= MOST_COMPARED}
                    slotProps={{ input: { 'aria-label': `Compare ${run.jobNumber} ${run.title}` } }}
                    onChange={(_, checked) =>
                      setChosen(checked ? [...chosen, run.id] : chosen.filter((other) => other !== run.id))
                    }
                  />
                </td>
                <td className="mono" style={{ whiteSpace: 'nowrap' }}>
                  <Link href={`/runs/${run.id}`}>{run.jobNumber}</Link>
                </td>
                <td>
                  <Link href={`/runs/${run.id}`}>{run.title}</Link>
                  {run.customer !== '' && <div className="quiet small">{run.customer}</div>}
                </td>
                <td>{run.condition}</td>
                <td>{run.side}</td>
                <td>{run.phase}</td>
                <td className="num">{run.sheets}</td>
                <td className="num">{run.lastImpression?.toLocaleString('en-GB') ?? ''}</td>
                <td className="num">
                  {run.judged === 0 ? '' : ((100 * (run.judged - run.outside)) / run.judged).toFixed(1)}
                </td>
                <td>
                  {now === undefined ? '' : formatWhen(run.madeMs, now)}
                  <div className="quiet small">{run.author}</div>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {older}
      {beginning && (
        <NewRunDialog
          presses={presses}
          aims={aims}
          lists={lists}
          from={from}
          onClose={() => {
            setBeginning(false);
            if (from !== undefined) router.replace('/runs');
          }}
        />
      )}
    </section>
  );
}
