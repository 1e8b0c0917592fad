'use client';

import { NEW_CONDITION } from '@/endpoints/conditions';
import { FLOOR_FILTERS, FLOOR_ORDERS } from '@melto/core/judgement/floorFilter';
import type { FloorFilter } from '@melto/core/judgement/floorFilter';
import { FLOOR } from '@/endpoints/house';
import { Button, MenuItem, TextField } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from '@/ui/Link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { FloorCounts, FloorState } from '@melto/services/overview/floor';
import { ask } from '@/ui/api';
import { formatClock } from '@/ui/format';
import { MEASURED_FILES } from '@/features/reading/measuredFiles';
import { FileLink } from '@/ui/FileButton';
import { May } from '@/ui/May';
import { useFileDrop } from '@/ui/useFileDrop';
import { EmptyFloor } from './EmptyFloor';
import { FileOnFloor } from './FileOnFloor';
import { ByAttention, CHAIN, Grouped, Row } from './FloorRows';

const FIND_AFTER_MS = 250;

export function Floor({ initial, sampleOffered }: { initial: FloorState; sampleOffered: boolean }) {
  const router = useRouter();
  const query = useSearchParams();
  const show = FLOOR_FILTERS.find((name) => name === query.get('show'));
  const order = FLOOR_ORDERS.find((name) => name === query.get('order')) ?? 'attention';
  const find = query.get('find') ?? '';
  const asked = {
    show,
    ...(order === 'attention' ? {} : { order }),
    ...(find === '' ? {} : { find }),
  };
  const plain = show === undefined && order === 'attention' && find === '';
  const { data, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['floor', show, order, find],
    queryFn: ({ pageParam }) => ask(FLOOR, { query: { ...asked, after: pageParam } }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: ({ next }) => next ?? undefined,
    initialData: plain ? { pages: [initial], pageParams: [undefined] } : undefined,
    placeholderData: (before) => before,
    refetchInterval: 10_000,
  });
  const set = (name: string, value: string | undefined): void => {
    const next = new URLSearchParams(query);
    if (value === undefined) next.delete(name);
    else next.set(name, value);
    router.replace(`/?${next.toString()}`);
  };
  const { counts, nowMs } = data?.pages[0] ?? initial;
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  const [given, setGiven] = useState<File>();
  const drop = useFileDrop(setGiven);
  const dialog = given !== undefined && <FileOnFloor file={given} onClose={() => setGiven(undefined)} />;
  if (counts.conditions === 0)
    return (
      <div {...drop.zone}>
        {dialog}
        <EmptyFloor sampleOffered={sampleOffered} onFile={setGiven} />
      </div>
    );
  return (
    <div {...drop.zone} className={`floor${drop.over ? ' drop' : ''}`}>
      {dialog}
      <div className="sentences">
        {sentencesOf(counts)
          .filter(({ count }) => count > 0)
          .map(({ key, count, words }) => (
            <button
              key={key}
              type="button"
              className="sentence"
              aria-pressed={show === key}
              onClick={() => set('show', show === key ? undefined : key)}
            >
              <b>{count}</b> {words}
            </button>
          ))}
        {sentencesOf(counts).every(({ count }) => count === 0) && (
          <span style={{ fontSize: 20 }}>Nothing needs you now.</span>
        )}
        <span className="grow" />
        <May act={NEW_CONDITION}>
          <Button variant="contained" component={Link} href="/conditions/new">
            New condition
          </Button>
        </May>
      </div>
      <div className="row">
        <FindField value={find} onFind={(words) => set('find', words === '' ? undefined : words)} />
        <TextField
          select
          label="Order"
          value={order}
          onChange={({ target: { value } }) => set('order', value === 'attention' ? undefined : value)}
          sx={{ width: 180 }}
        >
          <MenuItem value="attention">most pressing first</MenuItem>
          <MenuItem value="device">by device</MenuItem>
          <MenuItem value="stock">by stock</MenuItem>
        </TextField>
        <span className="grow" />
        <FileLink label="take a measured file" accept={MEASURED_FILES} onFile={setGiven} />
        <Link className="small" href="/library/devices">
          library
        </Link>
      </div>
      <table className="table">
        <thead>
          <tr>
            <th>Condition</th>
            <th>What now</th>
            <th>As printed</th>
            <th>
              <span className="marks" aria-hidden>
                {CHAIN.map(({ link, initial }) => (
                  <span key={link} style={{ width: 14, textAlign: 'center' }} title={link}>
                    {initial}
                  </span>
                ))}
              </span>
              <span className="visually-hidden">Limits, curves, balance, profile, conformity and watch</span>
            </th>
            <th>Drift</th>
            <th>Last check / limit</th>
            <th>Next check</th>
          </tr>
        </thead>
        <tbody>
          {order === 'device' ? (
            <Grouped rows={rows} nowMs={nowMs} />
          ) : order === 'stock' ? (
            rows.map((row) => <Row key={row.id} row={row} nowMs={nowMs} />)
          ) : (
            <ByAttention rows={rows} nowMs={nowMs} />
          )}
          {rows.length === 0 && (
            <tr>
              <td colSpan={7} className="quiet">
                No condition {find === '' ? 'of these' : `with “${find}”`}.
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {hasNextPage && (
        <Button onClick={() => void fetchNextPage()} disabled={isFetchingNextPage}>
          Show more
        </Button>
      )}
    </div>
  );
}

/** Words that are looked for once the typing rests. */
function FindField({ value, onFind }: { value: string; onFind: (words: string) => void }) {
  const [text, setText] = useState(value);
  const [seen, setSeen] = useState(value);
  const [asked, setAsked] = useState(value);
  // What is not asked for here comes from elsewhere, as by the way back: the field follows it.
  if (value !== seen) {
    setSeen(value);
    if (value !== asked) {
      setAsked(value);
      setText(value);
    }
  }
  useEffect(() => {
    if (text.trim() === value) return undefined;
    const wait = setTimeout(() => {
      setAsked(text.trim());
      onFind(text.trim());
    }, FIND_AFTER_MS);
    return () => clearTimeout(wait);
    // oxlint-disable-next-line react/exhaustive-deps -- only what is typed begins a search
  }, [text]);
  return (
    <TextField
      label="Find"
      value={text}
      onChange={(event) => setText(event.target.value)}
      slotProps={{ htmlInput: { maxLength: 80 } }}
      sx={{ width: 240 }}
    />
  );
}

/** What needs someone, each a filter of the floor. */
function sentencesOf({ fails, due, ready, resting, restUntilMs }: FloorCounts): readonly {
  readonly key: FloorFilter;
  readonly count: number;
  readonly words: string;
}[] {
  return [
    { key: 'fails', count: fails, words: fails === 1 ? 'does not conform' : 'do not conform' },
    { key: 'due', count: due, words: due === 1 ? 'check is due' : 'checks are due' },
    {
      key: 'ready',
      count: ready,
      words: ready === 1 ? 'sheet is ready to read' : 'sheets are ready to read',
    },
    {
      key: 'rest',
      count: resting,
      words: `${resting === 1 ? 'rests' : 'rest'} until ${formatClock(restUntilMs)}`,
    },
  ];
}
