'use client';

import { May } from '@/ui/May';
import { NEW_AIM_SET, MAKE_PAPER_AIMS } from '@/endpoints/conformity';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { AimSetDetail } from '@melto/services/conformity/aimSetDetail';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import { AIM_SOURCES, AimSetFacts } from './AimSetFacts';
import { NewAimSetDialog } from './NewAimSetDialog';
import { PaperAimsDialog } from './PaperAimsDialog';
import { useRemoval } from './useRemoval';

/** All aim sets, those of the house first; the chosen one with its versions, primaries and conditions. */
export function AimSetsSurface({ sets, shown }: { sets: readonly AimSetView[]; shown: AimSetDetail }) {
  const [making, setMaking] = useState<'new' | AimSetView>();
  const [moving, setMoving] = useState(false);
  const router = useRouter();
  const remove = useRemoval('aim-sets', () => router.replace('/library/aims'));
  const { view, versions } = shown;
  const [latest] = versions;
  const own = view.family.startsWith('own-');
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Aim sets</h1>
        <p className="quiet">
          What prints are judged against. A change is a new version; earlier checks keep theirs.
        </p>
        {own && (
          <May act={NEW_AIM_SET}>
            <Button onClick={() => void remove(latest.id, latest.name)}>Remove</Button>
          </May>
        )}
        {own && view.moved === null && (
          <May act={NEW_AIM_SET}>
            <Button onClick={() => setMaking(latest)}>New version</Button>
          </May>
        )}
        {view.id === latest.id && view.moved === null && (
          <May act={MAKE_PAPER_AIMS}>
            <Button onClick={() => setMoving(true)}>Aims on this paper</Button>
          </May>
        )}
        <May act={NEW_AIM_SET}>
          <Button variant="contained" onClick={() => setMaking('new')}>
            New aim set
          </Button>
        </May>
      </div>
      <div className="tolerance-columns">
        <nav className="panel" aria-label="Aim sets">
          {sets.map((each) => (
            <Link
              key={each.id}
              href={`/library/aims?set=${each.id}`}
              className="pick-link"
              aria-current={each.family === view.family ? 'true' : undefined}
            >
              {each.name}
              <span className="quiet small">
                {each.completed
                  ? AIM_SOURCES.published
                  : `${each.source === 'data' ? 'data' : AIM_SOURCES[each.source]}, ${each.patches.toLocaleString('en-GB')} patches`}
                {each.version > 1 ? `, version ${each.version}` : ''}
              </span>
            </Link>
          ))}
        </nav>
        <AimSetFacts detail={shown} path={`/library/aims?set=${latest.id}`} />
      </div>
      {making !== undefined && (
        <NewAimSetDialog
          versionOf={making === 'new' ? undefined : making}
          onClose={() => setMaking(undefined)}
        />
      )}
      {moving && <PaperAimsDialog aims={view} sets={sets} onClose={() => setMoving(false)} />}
    </section>
  );
}
