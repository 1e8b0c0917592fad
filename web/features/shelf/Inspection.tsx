'use client';

import { formatLab } from '@/ui/format';
import { Button } from '@mui/material';
import type { Remote } from 'comlink';
import { useState } from 'react';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import { plainName, save } from '@/ui/save';
import type { InspectionWorker } from '@/workers/inspection.worker';
import { BesideAnother } from './BesideAnother';
import { NeutralInks } from './NeutralInks';
import { LINK } from './profileTables';
import { TableSlices } from './TableSlices';
import { useInspection } from './useInspection';
import { useInspectionWorker } from './useInspectionWorker';

/** What a profile's file says of itself, and what is wrong with it in plain words. */
export function Inspection({
  source,
  sources,
}: {
  source: ProfileSource;
  /** All that it can be compared with. */
  sources: readonly ProfileSource[];
}) {
  const worker = useInspectionWorker();
  const { data, error } = useInspection(worker, source);
  if (error !== null)
    return (
      <p className="error" role="alert">
        {error.message}
      </p>
    );
  if (data === undefined) return <p className="quiet">Looking into it…</p>;
  const { figures, remarks } = data;
  return (
    <div className="inspection">
      <div className="panel">
        <header>
          <h2>What stands against it</h2>
        </header>
        {remarks.length === 0 ? (
          <p className="quiet">Nothing that its file shows.</p>
        ) : (
          <ul className="remarks">
            {remarks.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        )}
      </div>
      <div className="panel">
        <header>
          <h2>What it is</h2>
        </header>
        <Facts found={data} source={source} worker={worker} />
      </div>
      {figures !== undefined && (
        <div className="panel">
          <header>
            <h2>Along the greys</h2>
            <span className="quiet">device values for L* 0 to 100, relative colorimetric</span>
          </header>
          <NeutralInks greys={figures.greys} />
        </div>
      )}
      {worker !== undefined && (data.kind === 'output' || data.kind === LINK) && (
        <TableSlices key={source.key} {...{ worker, source, data }} />
      )}
      {worker !== undefined && data.kind === 'output' && <BesideAnother {...{ worker, source, sources }} />}
      <div className="panel">
        <header>
          <h2>Tags</h2>
        </header>
        <table className="table tight">
          <tbody>
            {data.tags.map(({ signature, type, says }) => (
              <tr key={signature}>
                <td className="mono">{signature}</td>
                <td className="quiet">{type}</td>
                <td style={{ overflowWrap: 'anywhere' }}>{says}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

function Facts({
  found,
  source,
  worker,
}: {
  found: ProfileInspection & { readonly bytes: number };
  source: ProfileSource;
  worker: Remote<InspectionWorker> | undefined;
}) {
  const { figures, mostInk, roundTrip, intents, data } = found;
  const kilobytes = Math.round(found.bytes / 1000).toLocaleString('en-GB');
  return (
    <dl className="facts">
      <dt>Kind</dt>
      <dd>
        {found.kind}, {found.colourSpace} to {found.connection}, ICC {found.version}, {kilobytes} kB
        {worker !== undefined && found.kind === 'output' && (
          <>
            {' '}
            <OtherVersion key={source.key} {...{ worker, source, version: found.version }} />
          </>
        )}
      </dd>
      {found.copyright !== '' && (
        <>
          <dt>Rights</dt>
          <dd>{found.copyright.slice(0, 120)}</dd>
        </>
      )}
      {intents.length > 0 && (
        <>
          <dt>Tables of their own</dt>
          <dd>{intents.join(', ')}</dd>
        </>
      )}
      {figures !== undefined && (
        <>
          <dt>Paper</dt>
          <dd>L* a* b* {formatLab(figures.white, 1)}</dd>
          <dt>Darkest neutral</dt>
          <dd>L* a* b* {formatLab(figures.black, 1)}</dd>
        </>
      )}
      {mostInk !== undefined && (
        <>
          <dt>Most ink</dt>
          <dd>{Math.round(100 * mostInk)} %</dd>
        </>
      )}
      {roundTrip !== undefined && (
        <>
          <dt>Round trip</dt>
          <dd>
            ΔE00 {roundTrip.mean.toFixed(2)} mean, {roundTrip.p95.toFixed(2)} at 95 %,{' '}
            {roundTrip.largest.toFixed(2)} largest
          </dd>
        </>
      )}
      {data !== undefined && (
        <>
          <dt>Characterisation data</dt>
          <dd>
            <Button
              size="small"
              onClick={() => save(`${plainName(source.label)}.txt`, new Blob([data], { type: 'text/plain' }))}
            >
              Take it out
            </Button>
          </dd>
        </>
      )}
    </dl>
  );
}

/** Writes the profile in the other version of the specification, or says why that cannot hold it. */
function OtherVersion({
  worker,
  source,
  version,
}: {
  worker: Remote<InspectionWorker>;
  source: ProfileSource;
  version: string;
}) {
  const [problem, setProblem] = useState<string>();
  const other = Number.parseInt(version, 10) >= 4 ? 2 : 4;
  const write = async (): Promise<void> => {
    const made = await worker.inOtherVersion(source.label, await source.bytes());
    if (typeof made === 'string') setProblem(made);
    else {
      setProblem(undefined);
      save(
        `${plainName(source.label)}_v${other}.icc`,
        new Blob([made], { type: 'application/vnd.iccprofile' }),
      );
    }
  };
  return (
    <>
      <Button
        size="small"
        onClick={() => void write().catch((error: unknown) => setProblem(problemWords(error)))}
      >
        Write it as version {other}
      </Button>
      {problem !== undefined && (
        <span className="error" role="alert">
          {problem}
        </span>
      )}
    </>
  );
}
