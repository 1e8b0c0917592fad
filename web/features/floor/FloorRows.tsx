'use client';

import { Link } from '@/ui/Link';
import { Fragment } from 'react';
import type { FloorRow } from '@melto/services/overview/floorRow';
import { LimitBar } from '@/ui/LimitBar';
import { StatusShape, STATUS_WORD } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { formatSpan, formatWhen } from '@/ui/format';

/** What needs someone first; those with nothing to do stand apart. */
export function ByAttention({ rows, nowMs }: { rows: readonly FloorRow[]; nowMs: number }) {
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

/** The conditions of each device together. */
export function Grouped({ rows, nowMs }: { rows: readonly FloorRow[]; nowMs: number }) {
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
export const CHAIN = [
  { link: 'limits', initial: 'L' },
  { link: 'curves', initial: 'Cu' },
  { link: 'balance', initial: 'B' },
  { link: 'profile', initial: 'P' },
  { link: 'conformity', initial: 'Co' },
  { link: 'watch', initial: 'W' },
] as const;

export function Row({ row, nowMs }: { row: FloorRow; nowMs: number }) {
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
