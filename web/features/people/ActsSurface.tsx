'use client';

import { Button, TextField } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { ACTS, ACTS_FILE } from '@/endpoints/people';
import { addressOf, ask, problemWords } from '@/ui/api';
import { formatMoment } from '@/ui/format';

const PAGE = 100;

/** The record of acts: who changed what, when, and from where. */
export function ActsSurface() {
  const [find, setFind] = useState('');
  const asked = useDeferredValue(find.trim());
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ['acts', asked],
    queryFn: ({ pageParam }: { pageParam: number | undefined }) =>
      ask(ACTS, { query: { find: asked, limit: PAGE, before: pageParam } }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < PAGE ? undefined : page.at(-1)?.id),
  });
  const acts = data?.pages.flat() ?? [];
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Record of acts</h1>
        <p className="quiet">
          What was changed, by whom and from where. It is written and read, never changed.
        </p>
        <Button component="a" href={addressOf(ACTS_FILE, { query: { find: asked } })} download>
          CSV
        </Button>
      </div>
      <div className="panel" style={{ display: 'grid', gap: 12 }}>
        <TextField
          label="Find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          sx={{ width: 280 }}
          slotProps={{ htmlInput: { type: 'search', maxLength: 80 } }}
        />
        {error !== null && (
          <p className="error" role="alert">
            {problemWords(error)}
          </p>
        )}
        {acts.length === 0 && !isFetching && error === null && (
          <p className="quiet">{asked === '' ? 'Nothing was changed yet.' : 'No act has these words.'}</p>
        )}
        {acts.length > 0 && (
          <table className="table tight">
            <thead>
              <tr>
                <th>When</th>
                <th>Who</th>
                <th>What</th>
                <th>On</th>
                <th>Sent, and what it changed</th>
              </tr>
            </thead>
            <tbody>
              {acts.map(({ id, atMs, person, key, origin, what, object, detail }) => (
                <tr key={id}>
                  <td style={{ whiteSpace: 'nowrap' }}>{formatMoment(atMs)}</td>
                  <td>
                    {person}
                    {key !== null && <span className="quiet small"> by key {key}</span>}
                    {origin !== '' && <div className="quiet small mono">{origin}</div>}
                  </td>
                  <td>{what}</td>
                  <td className="mono small">{object.replace(/^\/api\//, '')}</td>
                  <td className="small act-detail">{sentWords(detail)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {hasNextPage && (
          <div className="row">
            <Button size="small" disabled={isFetching} onClick={() => void fetchNextPage()}>
              Show older
            </Button>
          </div>
        )}
      </div>
    </section>
  );
}

/** What was sent, by its fields; as it stands where it is no object. */
function sentWords(detail: string): string {
  try {
    const sent: unknown = JSON.parse(detail === '' ? '{}' : detail);
    if (typeof sent !== 'object' || sent === null || Array.isArray(sent)) return detail;
    const word = (value: unknown): string =>
      Array.isArray(value)
        ? value.map(word).join(', ')
        : value === null
          ? 'nothing'
          : typeof value === 'string'
            ? value
            : JSON.stringify(value);
    const { changed, ...rest } = sent as Record<string, unknown>;
    const changes = Object.entries((changed ?? {}) as Record<string, readonly [unknown, unknown]>);
    return [
      ...Object.entries(rest).map(([name, value]) => `${name} ${word(value)}`),
      ...changes.map(
        ([name, [before, after]]) => `${name.replaceAll('_', ' ')}: ${word(before)} → ${word(after)}`,
      ),
    ].join(' · ');
  } catch {
    // Cut off where it was too long to be kept whole.
    return detail;
  }
}
