'use client';

import { Button } from '@mui/material';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { NeutralInks } from './NeutralInks';
import { useInspection } from './useInspection';

/** What a profile's file says of itself, and what is wrong with it in plain words. */
export function Inspection({ source }: { source: ProfileSource }) {
  const { data, error } = useInspection(source);
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
        <Facts found={data} name={source.label} />
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

const labWords = (lab: readonly number[]): string => lab.map((value) => value.toFixed(1)).join(', ');

function Facts({ found, name }: { found: ProfileInspection & { readonly bytes: number }; name: string }) {
  const { figures, mostInk, roundTrip, intents, data } = found;
  const kilobytes = Math.round(found.bytes / 1000).toLocaleString('en-GB');
  return (
    <dl className="facts">
      <dt>Kind</dt>
      <dd>
        {found.kind}, {found.colourSpace} to {found.connection}, ICC {found.version}, {kilobytes} kB
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
          <dd>L* a* b* {labWords(figures.white)}</dd>
          <dt>Darkest neutral</dt>
          <dd>L* a* b* {labWords(figures.black)}</dd>
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
            <Button size="small" onClick={() => download(data, name)}>
              Take it out
            </Button>
          </dd>
        </>
      )}
    </dl>
  );
}

function download(text: string, name: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${name.replace(/\.(icc|icm)$/i, '').replace(/[^\w-]+/g, '_')}.txt`;
  link.click();
  URL.revokeObjectURL(url);
}
