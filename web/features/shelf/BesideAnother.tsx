'use client';

import { formatLab } from '@/ui/format';
import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import { useState } from 'react';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';
import { ProfileField } from '@/features/profiles/ProfileField';
import type { ProfileSource } from '@/features/profiles/profileSource';
import type { InspectionWorker } from '@/workers/inspection.worker';

const ROWS: readonly (readonly [string, (figures: ProfileFigures) => string])[] = [
  ['Paper, L* a* b*', ({ white }) => formatLab(white, 1)],
  ['Darkest neutral, L* a* b*', ({ black }) => formatLab(black, 1)],
  ['Device values of that, %', ({ blackDevice }) => percents(blackDevice)],
  ['Largest cast of greys, a* or b*', ({ cast }) => cast.toFixed(1)],
  [
    'Most ink along greys, %',
    ({ totalInk }) => (totalInk === undefined ? '–' : String(Math.round(100 * totalInk))),
  ],
  ['Device values of L* 50, %', ({ greys }) => percents(greys[Math.floor(greys.length / 2)].device)],
  [
    'Fit to the data that it carries, ΔE00',
    ({ fit }) => (fit === undefined ? 'carries none' : `${fit.mean.toFixed(2)}, 95 % ${fit.p95.toFixed(2)}`),
  ],
];

/** Another profile beside the one that is looked into: figures of both, and how far they predict apart. */
export function BesideAnother({
  worker,
  source,
  sources,
}: {
  worker: Remote<InspectionWorker>;
  source: ProfileSource;
  sources: readonly ProfileSource[];
}) {
  const [key, setKey] = useState('');
  const other = sources.find((own) => own.key === key && own.key !== source.key);
  const { data, error } = useQuery({
    queryKey: ['beside', source.key, other?.key],
    queryFn: async () => {
      if (other === undefined) throw new Error('no other profile is chosen');
      const [own, beside] = await Promise.all([source.bytes(), other.bytes()]);
      const found = await worker.beside(source.label, own, other.label, beside);
      if (typeof found === 'string') throw new Error(found);
      return found;
    },
    enabled: other !== undefined,
    staleTime: Infinity,
    retry: false,
  });
  return (
    <div className="panel">
      <header>
        <h2>Beside another</h2>
        <ProfileField
          label="Compare with"
          value={other?.key ?? ''}
          sources={sources.filter((own) => own.key !== source.key)}
          onChoose={setKey}
        />
      </header>
      {error !== null && (
        <p className="error" role="alert">
          {error.message}
        </p>
      )}
      {data !== undefined && other !== undefined && (
        <>
          <table className="table tight">
            <thead>
              <tr>
                <th />
                <th className="num">this one</th>
                <th className="num">{other.label}</th>
              </tr>
            </thead>
            <tbody>
              {ROWS.map(([name, words]) => (
                <tr key={name}>
                  <td>{name}</td>
                  {[data.own, data.other].map((figures, i) => (
                    <td key={i} className="num">
                      {figures === null ? 'no tables both ways' : words(figures)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p>
            {data.difference === null
              ? 'Their channels differ: what they predict cannot be compared value by value.'
              : `For the same device values they predict colours ΔE00 ${data.difference.mean.toFixed(2)} apart on average, 95 % within ${data.difference.p95.toFixed(2)}, ${data.difference.largest.toFixed(2)} at most.`}
          </p>
        </>
      )}
    </div>
  );
}

const percents = (device: readonly number[]): string =>
  device.map((value) => Math.round(100 * value)).join(' ');
