'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { FeedRow } from '@melto/services/press/feeds';
import { CREATE_FEED, DELIVER, REMOVE_FEED } from '@/endpoints/runs';
import { usePutAway } from '@/features/library/usePutAway';
import { useDomainNow } from '@/features/frame/useHouse';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { formatWhen } from '@/ui/format';
import { Link } from '@/ui/Link';
import { May } from '@/ui/May';
import { HowTaken } from './HowTaken';

/** Sources that deliver readings by themselves. */
export function FeedsSurface({ feeds }: { feeds: readonly FeedRow[] }) {
  const router = useRouter();
  const put = usePutAway();
  const now = useDomainNow();
  const [making, setMaking] = useState(false);
  const remove = ({ id, name }: FeedRow): Promise<void> =>
    put(async (removed) => {
      await send(REMOVE_FEED, { params: { id }, body: { removed } });
      router.refresh();
    }, `${name} is off the list; what it delivered stays.`);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Feeds</h1>
        <p className="quiet">Sensors and folders that bring sheets into a run by themselves.</p>
        <May act={CREATE_FEED}>
          <Button variant="contained" onClick={() => setMaking(true)}>
            New feed
          </Button>
        </May>
      </div>
      {feeds.length === 0 ? (
        <p className="quiet">
          None yet. A sensor posts each sheet to an address of its own with a key for machines; a folder on
          the server is looked through for files.
        </p>
      ) : (
        <table className="table">
          <thead>
            <tr>
              <th>Feed</th>
              <th>Where it delivers</th>
              <th>Run</th>
              <th>Taken in</th>
              <th className="num">Waiting</th>
              <th>Last heard</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {feeds.map((feed) => (
              <tr key={feed.id}>
                <td>{feed.name}</td>
                <td className="mono small">
                  {feed.kind === 'folder'
                    ? feed.folder
                    : `POST ${DELIVER.path.replace('{id}', String(feed.id))}`}
                </td>
                <td>
                  {feed.runId === null ? (
                    <span className="quiet">none</span>
                  ) : (
                    <Link href={`/runs/${feed.runId}`}>{feed.run}</Link>
                  )}
                </td>
                <td>{feed.byItself ? 'by itself' : 'by hand'}</td>
                <td className="num">{feed.waiting}</td>
                <td>
                  {feed.lastMs === null || now === undefined ? (
                    <span className="quiet">never</span>
                  ) : (
                    formatWhen(feed.lastMs, now)
                  )}
                  {feed.trouble !== null && <div className="error small">{feed.trouble}</div>}
                </td>
                <td className="row-acts">
                  <May act={REMOVE_FEED}>
                    <Button size="small" onClick={() => void remove(feed)}>
                      Remove
                    </Button>
                  </May>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {making && <NewFeedDialog onClose={() => setMaking(false)} />}
    </section>
  );
}

function NewFeedDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<FeedRow['kind']>('sensor');
  const [folder, setFolder] = useState('');
  const [byItself, setByItself] = useState(true);
  const folderRight = kind === 'sensor' || folder.trim().startsWith('/');
  return (
    <FormDialog
      title="New feed"
      act="Make it known"
      ready={name.trim() !== '' && folderRight}
      onSubmit={async () => {
        await send(CREATE_FEED, { body: { name, kind, byItself, ...(kind === 'folder' ? { folder } : {}) } });
        router.refresh();
        onClose();
      }}
      onClose={onClose}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
        helperText="As it is known at the press: sensor over unit 4"
      />
      <TextField
        select
        label="Kind"
        value={kind}
        onChange={(event) => setKind(event.target.value as FeedRow['kind'])}
      >
        <MenuItem value="sensor">a sensor or program that posts</MenuItem>
        <MenuItem value="folder">a folder on the server</MenuItem>
      </TextField>
      {kind === 'folder' && (
        <TextField
          label="Folder"
          value={folder}
          error={folder !== '' && !folderRight}
          helperText="Whole path; files end with the counter of the press: bar-001250.txt"
          onChange={(event) => setFolder(event.target.value)}
        />
      )}
      <HowTaken byItself={byItself} onChange={setByItself} />
    </FormDialog>
  );
}
