'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { READING_UNDER } from '@/endpoints/light';
import { ask, problemWords } from '@/ui/api';
import { formatLab } from '@/ui/format';
import { LightField } from './LightField';
import { DAYLIGHT, partsOf } from './useLights';
import type { SeenInKey } from './useLights';

/** Patches that move most are listed. */
const LISTED = 6;

/** A reading in another light: how far its colours move, each against the white of its light. */
export function SeenInPanel({ readingId, onPick }: { readingId: number; onPick: (row: number) => void }) {
  const [seen, setSeen] = useState<SeenInKey>(DAYLIGHT);
  const { key, observer } = partsOf(seen);
  const { data, error } = useQuery({
    queryKey: ['reading-under', readingId, seen],
    queryFn: () => ask(READING_UNDER, { params: { id: readingId }, query: { light: key, observer } }),
    enabled: seen !== DAYLIGHT,
    retry: false,
    staleTime: Infinity,
  });
  const moved =
    data === undefined || data.length === 0 ? undefined : summariseErrors(data.map((patch) => patch.moved));
  return (
    <div className="panel">
      <header>
        <h2>In another light</h2>
        <LightField label="Seen in" value={seen} onChange={setSeen} width={190} />
      </header>
      {seen === DAYLIGHT && (
        <p className="quiet small">How far its colours move from D50, each against the white of its light.</p>
      )}
      {error !== null && seen !== DAYLIGHT && (
        <p className="error" role="alert">
          {problemWords(error)}
        </p>
      )}
      {seen !== DAYLIGHT && data !== undefined && moved !== undefined && (
        <>
          <p className="figures">
            <span>
              mean <b>{moved.mean.toFixed(2)}</b>
            </span>
            <span>
              95 % under <b>{moved.p95.toFixed(2)}</b>
            </span>
            <span>
              largest <b>{moved.largest.toFixed(2)}</b>
            </span>
          </p>
          <ol style={{ marginTop: 8 }}>
            {[...data]
              .sort((a, b) => b.moved - a.moved)
              .slice(0, LISTED)
              .map(({ row, lab, moved: far }) => (
                <li key={row} className="row small" style={{ justifyContent: 'space-between' }}>
                  <button type="button" className="plain" onClick={() => onPick(row)}>
                    patch {row + 1}
                  </button>
                  <span className="quiet">{formatLab(lab)}</span>
                  <b>{far.toFixed(2)}</b>
                </li>
              ))}
          </ol>
        </>
      )}
    </div>
  );
}
