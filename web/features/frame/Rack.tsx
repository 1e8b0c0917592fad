'use client';

import { Link } from '@/ui/Link';
import { useState } from 'react';
import type { RackSlip } from '@melto/services/charts/rack';
import { formatClock, formatSpan } from '@/ui/format';
import { useDomainNow, useHouse } from './useHouse';

/** The sheets of all conditions that wait to be read. */
export function Rack({ folded }: { folded: boolean }) {
  const { data } = useHouse();
  const now = useDomainNow();
  const [closed, setClosed] = useState(false);
  const slips = data?.slips ?? [];
  const count = (state: RackSlip['state']): number => slips.filter((slip) => slip.state === state).length;
  if (folded || closed)
    return (
      <aside className="rack folded small" aria-label="Rack">
        <button type="button" className="plain" onClick={() => setClosed(!closed)} disabled={folded}>
          Rack: {count('ready') + count('partly read')} to read, {count('resting')} resting
        </button>
      </aside>
    );
  return (
    <aside className="rack" aria-label="Rack">
      <button
        type="button"
        className="plain rack-title"
        onClick={() => setClosed(true)}
        title="Fold the rack away"
      >
        <b>Rack</b>
        <span className="quiet small">
          {slips.length} {slips.length === 1 ? 'sheet' : 'sheets'}
        </span>
      </button>
      <div className="slips">
        {slips.length === 0 && data !== undefined && (
          <span className="quiet">
            Sheets come here when a chart is printed, and stay until they are read.
          </span>
        )}
        {now !== undefined && slips.map((slip) => <Slip key={slip.code} slip={slip} now={now} />)}
      </div>
    </aside>
  );
}

function Slip({ slip, now }: { slip: RackSlip; now: number }) {
  const left = slip.restUntilMs - now;
  const share = Math.min(1, Math.max(0, 1 - left / Math.max(1, slip.restUntilMs - slip.printedMs)));
  const ready = slip.state !== 'resting' || left <= 0;
  return (
    <Link
      href={`/read/${slip.code}`}
      className={`slip${slip.state !== 'partly read' && ready ? ' ready' : ''}`}
    >
      <span className="thumb" aria-hidden>
        {slip.thumbnail.map((hex, i) => (
          <i key={i} style={{ background: hex }} />
        ))}
      </span>
      <span>
        <b className="mono">{slip.code}</b>
        <span className="quiet">{slip.title}</span>
      </span>
      {slip.state === 'partly read' ? (
        <span>
          {slip.stripsRead} of {slip.strips}
          <br />
          <span className="quiet">strips</span>
        </span>
      ) : ready ? (
        <b>ready</b>
      ) : (
        <>
          <RestRing share={share} />
          <span>
            {formatClock(slip.restUntilMs)}
            <br />
            <span className="quiet">in {formatSpan(left)}</span>
          </span>
        </>
      )}
    </Link>
  );
}

/** A ring that closes while a sheet rests. */
export function RestRing({ share, size = 20 }: { share: number; size?: number }) {
  const r = 8;
  const length = 2 * Math.PI * r;
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      role="img"
      aria-label={`rested ${Math.round(share * 100)} %`}
    >
      <circle cx="10" cy="10" r={r} fill="none" stroke="var(--rule)" strokeWidth="3" />
      <circle
        cx="10"
        cy="10"
        r={r}
        fill="none"
        stroke="var(--text)"
        strokeWidth="3"
        strokeDasharray={`${share * length} ${length}`}
        transform="rotate(-90 10 10)"
      />
    </svg>
  );
}
