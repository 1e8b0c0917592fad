'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { READING_UNDER } from '@/endpoints/light';
import { PatchRanking } from '@/features/reading/PatchRanking';
import { ask, problemWords } from '@/ui/api';
import { ErrorFigures } from '@/ui/ErrorFigures';
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
          <ErrorFigures {...moved} />
          <PatchRanking
            patches={[...data]
              .sort((a, b) => b.moved - a.moved)
              .slice(0, LISTED)
              .map(({ row, lab, moved: value }) => ({ row, words: formatLab(lab), value }))}
            onPick={onPick}
          />
        </>
      )}
    </div>
  );
}
