'use client';

import { Button } from '@mui/material';
import { useState } from 'react';
import type { AimSetView } from '@melto/services/aimSets';
import { formatDay } from '@/ui/format';
import { NewAimSetDialog } from './NewAimSetDialog';
import { useRemoval } from './useRemoval';

const SOURCES: Readonly<Record<AimSetView['source'], string>> = {
  published: 'completed from published solids',
  data: 'characterisation data',
  profile: 'profile',
  reading: 'reading',
  'by hand': 'by hand',
};

/** All aim sets: those that come with Melto, and one's own with their versions. */
export function AimSetsSurface({ sets }: { sets: readonly AimSetView[] }) {
  const [making, setMaking] = useState<'new' | AimSetView>();
  const remove = useRemoval('aim-sets');
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Aim sets</h1>
        <p className="quiet">
          What prints are judged against. A change is a new version; earlier checks keep theirs.
        </p>
        <Button variant="contained" onClick={() => setMaking('new')}>
          New aim set
        </Button>
      </div>
      <table className="table">
        <thead>
          <tr>
            <th>Name</th>
            <th>Made from</th>
            <th className="num">Patches</th>
            <th>Measured</th>
            <th>Origin</th>
            <th>Made</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {sets.map((set) => (
            <tr key={set.id}>
              <td>
                <b>{set.name}</b>
                {set.version > 1 && <span className="quiet"> v{set.version}</span>}
              </td>
              <td>{SOURCES[set.source]}</td>
              <td className="num">{set.patches}</td>
              <td>{set.conditions.mode ?? <span className="quiet">mode not told</span>}</td>
              <td className="small" style={{ maxWidth: 460 }}>
                {set.origin}
              </td>
              <td className="small">
                {set.family.startsWith('own-') ? formatDay(set.madeMs) : 'comes with Melto'}
              </td>
              <td style={{ whiteSpace: 'nowrap' }}>
                {set.family.startsWith('own-') && (
                  <span className="row" style={{ gap: 8 }}>
                    <Button size="small" onClick={() => setMaking(set)}>
                      New version
                    </Button>
                    <Button size="small" onClick={() => void remove(set.id, set.name)}>
                      Remove
                    </Button>
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {making !== undefined && (
        <NewAimSetDialog
          versionOf={making === 'new' ? undefined : making}
          onClose={() => setMaking(undefined)}
        />
      )}
    </section>
  );
}
