'use client';

import { Button } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ToleranceSetView } from '@melto/services/toleranceSets';
import { ToleranceEditor } from './ToleranceEditor';
import { useRemoval } from './useRemoval';

/** All tolerance sets; the chosen one with its metrics, to read or to write one's own from. */
export function TolerancesSurface({
  sets,
  shown,
}: {
  sets: readonly ToleranceSetView[];
  shown: ToleranceSetView;
}) {
  const [editing, setEditing] = useState(false);
  const router = useRouter();
  const remove = useRemoval('tolerance-sets', () => router.replace('/library/tolerances'));
  const { set } = shown;
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Tolerance sets</h1>
        <p className="quiet">Metrics are data: a group of patches, a statistic, a quantity, a limit.</p>
        {!editing && !shown.shipped && (
          <Button onClick={() => void remove(shown.id, shown.set.name)}>Remove</Button>
        )}
        {!editing && (
          <Button variant="contained" onClick={() => setEditing(true)}>
            {shown.shipped ? 'Write an own set from this' : 'Change'}
          </Button>
        )}
      </div>
      <div className="tolerance-columns">
        <nav className="panel" aria-label="Tolerance sets">
          {sets.map((each) => (
            <Link
              key={each.id}
              href={`/library/tolerances?set=${each.id}`}
              className="pick-link"
              aria-current={each.id === shown.id ? 'true' : undefined}
              onClick={() => setEditing(false)}
            >
              {each.set.name}
              <span className="quiet small">
                {each.shipped ? 'comes with Melto' : `own, version ${each.version}`}
              </span>
            </Link>
          ))}
        </nav>
        {editing ? (
          <ToleranceEditor
            key={shown.id}
            from={shown}
            onDone={(id) => {
              setEditing(false);
              if (id !== undefined) router.replace(`/library/tolerances?set=${id}`);
              router.refresh();
            }}
          />
        ) : (
          <div className="panel">
            <header>
              <h2>{set.name}</h2>
              <span className="quiet">{set.source}</span>
            </header>
            <table className="table tight">
              <thead>
                <tr>
                  <th>Group</th>
                  <th>Statistic</th>
                  <th>Quantity</th>
                  <th className="num">Limit</th>
                </tr>
              </thead>
              <tbody>
                {set.metrics.map((metric, i) => (
                  <tr key={i}>
                    <td>{metric.group === 'all' ? 'all patches' : metric.group}</td>
                    <td>{metric.statistic}</td>
                    <td>{metric.quantity}</td>
                    <td className="num">{metric.limit.toFixed(1)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="quiet" style={{ marginTop: 12 }}>
              {set.substrateUncorrected
                ? 'Where aims are corrected for the substrate, the substrate itself is still judged against the uncorrected aim.'
                : 'Where aims are corrected for the substrate, the substrate is judged against the corrected aim as well.'}
            </p>
            {(set.notJudged ?? []).map((words) => (
              <p key={words}>{words}</p>
            ))}
          </div>
        )}
      </div>
    </section>
  );
}
