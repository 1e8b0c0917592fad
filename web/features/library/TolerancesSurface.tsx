'use client';

import { May } from '@/ui/May';
import { SAVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toleranceChanges } from '@melto/core/conformity/toleranceChanges';
import { doubtfulLimits } from '@melto/core/conformity/toleranceSet';
import type { ToleranceMetric } from '@melto/core/conformity/toleranceSet';
import { OPTIONAL_GROUPS } from '@melto/core/conformity/patchGroups';
import type { ToleranceSetView } from '@melto/services/conformity/toleranceSets';
import { ToleranceEditor } from './ToleranceEditor';
import { useRemoval } from './useRemoval';
import { VersionList } from './VersionList';

/** All tolerance sets; the chosen one with its metrics, to read or to write one's own from. */
export function TolerancesSurface({
  sets,
  shown,
  versions,
}: {
  sets: readonly ToleranceSetView[];
  shown: ToleranceSetView;
  /** All versions of what is shown, the latest first. */
  versions: readonly ToleranceSetView[];
}) {
  const [editing, setEditing] = useState(false);
  const router = useRouter();
  const remove = useRemoval('tolerance-sets', () => router.replace('/library/tolerances'));
  const { set } = shown;
  const [latest] = versions;
  const before = versions.find(({ version }) => version < shown.version);
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Tolerance sets</h1>
        <p className="quiet">Metrics are data: a group of patches, a statistic, a quantity, a limit.</p>
        {!editing && !shown.shipped && (
          <May act={SAVE_TOLERANCE_SET}>
            <Button onClick={() => void remove(latest.id, latest.set.name)}>Remove</Button>
          </May>
        )}
        {!editing && (
          <May act={SAVE_TOLERANCE_SET}>
            <Button variant="contained" onClick={() => setEditing(true)}>
              {shown.shipped
                ? 'Write an own set from this'
                : shown.id === latest.id
                  ? 'Change'
                  : `Make it version ${latest.version + 1}`}
            </Button>
          </May>
        )}
      </div>
      <div className="tolerance-columns">
        <nav className="panel" aria-label="Tolerance sets">
          {sets.map((each) => (
            <Link
              key={each.id}
              href={`/library/tolerances?set=${each.id}`}
              className="pick-link"
              aria-current={each.set.id === set.id ? 'true' : undefined}
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
            next={latest.version + 1}
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
              <span className="quiet">
                {set.source}
                {shown.id === latest.id
                  ? ''
                  : `; version ${shown.version} of ${latest.version}, checks made by it keep it`}
              </span>
            </header>
            <VersionList
              versions={versions}
              shownId={shown.id}
              path={`/library/tolerances?set=${latest.id}`}
            />
            {before !== undefined && <Changes before={before} after={shown} />}
            <table className="table tight">
              <thead>
                <tr>
                  <th>Group</th>
                  <th>Statistic</th>
                  <th>Quantity</th>
                  <th className="num">Limit</th>
                  {set.metrics.some(isTold) && <th>Certainty</th>}
                </tr>
              </thead>
              <tbody>
                {set.metrics.map((metric, i) => (
                  <tr key={i}>
                    <td>
                      {metric.group === 'all' ? 'all patches' : metric.group}
                      {OPTIONAL_GROUPS.has(metric.group) && (
                        <span className="quiet">, where the wedge has any</span>
                      )}
                    </td>
                    <td>{metric.statistic}</td>
                    <td>{metric.quantity}</td>
                    <td className="num">{metric.limit.toFixed(1)}</td>
                    {set.metrics.some(isTold) && <td className="quiet">{metric.certainty}</td>}
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="quiet" style={{ marginTop: 12 }}>
              {set.substrateUncorrected
                ? 'Where aims are corrected for the substrate, the substrate itself is still judged against the uncorrected aim.'
                : 'Where aims are corrected for the substrate, the substrate is judged against the corrected aim as well.'}
            </p>
            {[...(set.notJudged ?? []), ...doubtfulLimits(set)].map((words) => (
              <p key={words}>{words}</p>
            ))}
          </div>
        )}
      </div>
    </section>
  );
}

const isTold = ({ certainty }: ToleranceMetric): boolean => certainty !== undefined;

/** What a version changed, in one line. */
function Changes({ before, after }: { before: ToleranceSetView; after: ToleranceSetView }) {
  const { added, removed, moved } = toleranceChanges(before.set.metrics, after.set.metrics);
  const nameOf = ({ group, statistic, quantity }: ToleranceMetric): string =>
    `${group === 'all' ? 'all patches' : group} ${statistic} ${quantity}`;
  const words = [
    ...moved.map(({ metric, from }) => `${nameOf(metric)} from ${from} to ${metric.limit}`),
    ...added.map((metric) => `${nameOf(metric)} ≤ ${metric.limit} is new`),
    ...removed.map((metric) => `${nameOf(metric)} is gone`),
    ...(before.set.substrateUncorrected === after.set.substrateUncorrected
      ? []
      : ['the substrate is judged otherwise']),
  ];
  return (
    <p style={{ margin: '8px 0 12px' }}>
      <span className="quiet">Since version {before.version}:</span>{' '}
      {words.length === 0 ? 'the same metrics.' : `${words.join('; ')}.`}
    </p>
  );
}
