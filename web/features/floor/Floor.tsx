'use client';

import { FLOOR_FILTERS, FLOOR_ORDERS } from '@melto/core/judgement/floorFilter';
import type { FloorFilter } from '@melto/core/judgement/floorFilter';
import { FLOOR, LOAD_SAMPLE } from '@/endpoints/house';
import { Button, MenuItem, TextField } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { Fragment, useEffect, useState } from 'react';
import type { FloorCounts, FloorState } from '@melto/services/overview/floor';
import type { FloorRow } from '@melto/services/overview/floorRow';
import { ask, problemWords, send } from '@/ui/api';
import { StatusShape, STATUS_WORD } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { formatClock, formatSpan, formatWhen } from '@/ui/format';
import { MEASURED_FILES } from '@/features/reading/measuredFiles';
import { FileLink } from '@/ui/FileButton';
import { useFileDrop } from '@/ui/useFileDrop';
import { FileOnFloor } from './FileOnFloor';

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
        <FindField value={find} onFind={(words) => set('find', words === '' ? undefined : words)} />
        <TextField
          select
          label="Order"
          value={order}
          onChange={({ target: { value } }) => set('order', value === 'attention' ? undefined : value)}
          sx={{ width: 170 }}
        >
          <MenuItem value="attention">most pressing first</MenuItem>
          <MenuItem value="device">by device</MenuItem>
          <MenuItem value="stock">by stock</MenuItem>
        </TextField>
        <FileLink label="take a measured file" accept={MEASURED_FILES} onFile={setGiven} />
        <Link className="small" href="/library/devices">
          library
        </Link>
        <Button variant="contained" component={Link} href="/conditions/new">
          New condition
        </Button>
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
  useEffect(() => {
    if (text.trim() === value) return undefined;
    const wait = setTimeout(() => onFind(text.trim()), FIND_AFTER_MS);
    return () => clearTimeout(wait);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is typed begins a search
  }, [text]);
  return (
    <TextField
      label="Find"
      value={text}
      onChange={(event) => setText(event.target.value)}
      slotProps={{ htmlInput: { maxLength: 80 } }}
      sx={{ width: 150 }}
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

function ByAttention({ rows, nowMs }: { rows: readonly FloorRow[]; nowMs: number }) {
  const todo = rows.filter(({ attention }) => attention > 0);
  const rest = rows.filter(({ attention }) => attention === 0);
  return (
    <>
      {todo.map((row) => (
        <Row key={row.id} row={row} nowMs={nowMs} />
      ))}
      {rest.length > 0 && todo.length > 0 && (
        <tr className="sep">
          <td colSpan={7}>Nothing to do</td>
        </tr>
      )}
      {rest.map((row) => (
        <Row key={row.id} row={row} nowMs={nowMs} />
      ))}
    </>
  );
}

function Grouped({ rows, nowMs }: { rows: readonly FloorRow[]; nowMs: number }) {
  const devices = [...new Set(rows.map(({ device }) => device))].sort();
  return devices.map((device) => (
    <Fragment key={device}>
      <tr className="sep">
        <td colSpan={7}>{device}</td>
      </tr>
      {rows
        .filter((row) => row.device === device)
        .map((row) => (
          <Row key={row.id} row={row} nowMs={nowMs} />
        ))}
    </Fragment>
  ));
}

/** All links of the chain with the initials above their marks; a process without one leaves it blank. */
const CHAIN = [
  { link: 'limits', initial: 'L' },
  { link: 'curves', initial: 'Cu' },
  { link: 'balance', initial: 'B' },
  { link: 'profile', initial: 'P' },
  { link: 'conformity', initial: 'Co' },
  { link: 'watch', initial: 'W' },
] as const;

function Row({ row, nowMs }: { row: FloorRow; nowMs: number }) {
  const { check } = row;
  return (
    <tr>
      <td>
        <Link href={`/conditions/${row.id}`} style={{ textDecoration: 'none' }}>
          <b>{row.stock}</b>
          <br />
          <span className="quiet small">
            {row.device} · {row.mode}
          </span>
        </Link>
        {row.duty !== null && (
          <span className="small">
            <br />
            <StatusShape status="due" /> {row.duty} is due at {row.device}
          </span>
        )}
      </td>
      <td>
        {row.whatNow === null ? (
          <span className="quiet">nothing</span>
        ) : (
          <Link href={row.whatNow.href}>{row.whatNow.words}</Link>
        )}
      </td>
      <td>
        {row.ramps.length === 0 ? (
          <span className="quiet small">nothing read yet</span>
        ) : (
          <div className="ramps" role="img" aria-label={`printed ramps of ${row.stock}`}>
            {row.ramps.map((ramp, i) => (
              <div key={i}>
                {ramp.map((hex, k) => (
                  <i key={k} style={{ background: hex }} />
                ))}
              </div>
            ))}
          </div>
        )}
      </td>
      <td>
        <span className="marks">
          {CHAIN.map(({ link }) => {
            const mark = row.links.find((other) => other.link === link);
            return mark === undefined ? (
              <i key={link} />
            ) : (
              <StatusShape key={link} status={mark.state} title={`${link}: ${STATUS_WORD[mark.state]}`} />
            );
          })}
        </span>
      </td>
      <td>
        <Spark watch={row.watch} />
      </td>
      <td>
        {check === null ? (
          <span className="quiet small">not yet checked</span>
        ) : (
          <span className="row">
            <span>
              <b>{check.value.toFixed(2)}</b> <span className="quiet">/ {check.limit.toFixed(2)}</span>
            </span>
            <LimitBar value={check.value} limit={check.limit} status={check.verdict as Status} />
          </span>
        )}
      </td>
      <td
        className="small"
        title={check === null ? undefined : `last check ${formatWhen(check.madeMs, nowMs)}`}
      >
        {row.watch === null ? (
          <span className="quiet">no watch</span>
        ) : nowMs > row.watch.dueMs ? (
          `overdue ${overdueSpan(nowMs - row.watch.dueMs)}`
        ) : (
          `in ${formatSpan(row.watch.dueMs - nowMs)}`
        )}
      </td>
    </tr>
  );
}

/** Whole days once there is one, as the sentence beside it counts them. */
function overdueSpan(ms: number): string {
  const days = Math.floor(ms / 86_400_000);
  return days < 1 ? formatSpan(ms) : `${days} d`;
}

/** Mean ΔE00 of the latest watch checks with its limit. */
function Spark({ watch }: { watch: FloorRow['watch'] }) {
  if (watch === null || watch.spark.length === 0) return null;
  const top = Math.max(watch.limit, ...watch.spark) * 1.1;
  const y = (value: number): number => 23 - (22 * value) / top;
  const x = (i: number): number => 1 + (74 * i) / Math.max(1, watch.spark.length - 1);
  return (
    <svg
      width="78"
      height="24"
      viewBox="0 0 78 24"
      role="img"
      aria-label={`drift ${watch.spark.at(-1)?.toFixed(2) ?? ''} of ${watch.limit.toFixed(1)}`}
    >
      <path d={`M0 ${y(watch.limit)}H78`} stroke="var(--quiet)" strokeDasharray="3 2" />
      <polyline
        points={watch.spark.map((value, i) => `${x(i)},${y(value)}`).join(' ')}
        fill="none"
        stroke="var(--text)"
        strokeWidth="1.4"
      />
      <circle cx={x(watch.spark.length - 1)} cy={y(watch.spark.at(-1) ?? 0)} r="2" fill="var(--text)" />
    </svg>
  );
}

/** Value against its limit: the mark is the limit. */
export function LimitBar({ value, limit, status }: { value: number; limit: number; status: Status }) {
  const tone =
    status === 'does-not-conform' ? 'var(--fails)' : status === 'near' ? 'var(--near)' : 'var(--conforms)';
  return (
    <span className="bar" aria-hidden>
      <i style={{ width: `${Math.min(100, (80 * value) / limit)}%`, background: tone }} />
      <b style={{ left: '80%' }} />
    </span>
  );
}

function EmptyFloor({
  sampleOffered,
  onFile,
}: {
  sampleOffered: boolean;
  onFile: (file: File | undefined) => void;
}) {
  const { enqueueSnackbar } = useSnackbar();
  const load = (): void => {
    send(LOAD_SAMPLE, {}).then(
      () => enqueueSnackbar('The sample house is being loaded; the header shows how far it is.'),
      (error: unknown) => enqueueSnackbar(problemWords(error), { variant: 'error' }),
    );
  };
  return (
    <div className="floor" style={{ alignItems: 'flex-start', padding: 32, gap: 20 }}>
      <p style={{ fontSize: 20 }}>
        No condition yet: a condition is one device with one stock, one ink set and one print mode.
      </p>
      <div className="row">
        <Button variant="contained" component={Link} href="/conditions/new">
          New condition
        </Button>
        <Button component={Link} href="/library/house">
          Name your house
        </Button>
        {/* A way for the keyboard to what can be dropped on the floor as well. */}
        <FileLink label="take a measured file" accept={MEASURED_FILES} onFile={onFile} />
        {sampleOffered && <Button onClick={load}>Load the sample house</Button>}
      </div>
    </div>
  );
}
