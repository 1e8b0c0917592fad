import { Button, MenuItem, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RunView } from '@melto/services/press/runView';
import { FEED_RUN, FEEDS, TAKE_WAITING } from '@/endpoints/runs';
import { ask, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { Link } from '@/ui/Link';
import { HowTaken } from './HowTaken';
import { useSending } from '@/ui/useSending';

/** Points a feed at this run, by itself or by hand. */
export function RunFeedDialog({ run, onClose }: { run: RunView; onClose: () => void }) {
  const queries = useQueryClient();
  const { data: feeds = [] } = useQuery({ queryKey: ['feeds'], queryFn: () => ask(FEEDS, {}) });
  const own = feeds.find(({ runId }) => runId === run.id);
  const [picked, setPicked] = useState<number>();
  const feed = feeds.find(({ id }) => id === (picked ?? own?.id)) ?? feeds[0];
  const [byItself, setByItself] = useState<boolean>();
  const how = byItself ?? feed?.byItself ?? true;
  const { problem, run: act } = useSending();
  const takeWaiting = (): Promise<void> =>
    act(async () => {
      await send(TAKE_WAITING, { params: { id: feed.id } });
      await queries.invalidateQueries({ queryKey: ['feeds'] });
    });
  if (feed === undefined)
    return (
      <FormDialog
        title="Feed that reads this run"
        act="Close"
        out={null}
        onSubmit={onClose}
        onClose={onClose}
      >
        <p>
          No feed is known yet. <Link href="/library/feeds">Make one known</Link>: a sensor over the sheet, or
          a folder that readings are put into.
        </p>
      </FormDialog>
    );
  return (
    <FormDialog
      title="Feed that reads this run"
      act="Read this run"
      problem={problem}
      onSubmit={async () => {
        await send(FEED_RUN, { params: { id: feed.id }, body: { runId: run.id, byItself: how } });
        await queries.invalidateQueries({ queryKey: ['feeds'] });
        onClose();
      }}
      onClose={onClose}
    >
      <TextField
        select
        label="Feed"
        value={feed.id}
        onChange={(event) => setPicked(Number(event.target.value))}
      >
        {feeds.map(({ id, name, run: reads, runId }) => (
          <MenuItem key={id} value={id}>
            {name}{' '}
            <span className="quiet small">
              {runId === null ? 'reads no run' : runId === run.id ? 'reads this run' : `reads ${reads ?? ''}`}
            </span>
          </MenuItem>
        ))}
      </TextField>
      <HowTaken byItself={how} onChange={setByItself} />
      {feed.waiting > 0 && (
        <div className="row">
          <span>
            {feed.waiting} {feed.waiting === 1 ? 'reading waits' : 'readings wait'}
          </span>
          {feed.runId === run.id && <Button onClick={() => void takeWaiting()}>Take them in</Button>}
        </div>
      )}
    </FormDialog>
  );
}
