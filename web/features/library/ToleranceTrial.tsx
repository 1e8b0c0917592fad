'use client';

import { TRIALS } from '@/endpoints/conformity';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo } from 'react';
import type { Lab } from '@melto/core/colour/lab';
import { judgeColours } from '@melto/core/conformity/judgeColours';
import { shareOf } from '@melto/core/conformity/whatDecides';
import type { ToleranceMetric } from '@melto/core/conformity/toleranceSet';
import { LimitBar } from '@/ui/LimitBar';
import { ask } from '@/ui/api';
import { formatDay } from '@/ui/format';
import { StatusMark } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';

/** What the metrics would have made of past checks, computed while they are written. */
export function ToleranceTrial({ metrics }: { metrics: readonly ToleranceMetric[] }) {
  const { data } = useQuery({
    queryKey: ['tolerance-trials'],
    queryFn: () => ask(TRIALS, {}),
    staleTime: 60_000,
  });
  const tried = useDeferredValue(metrics);
  const rows = useMemo(
    () =>
      (data ?? []).map((check) => {
        const judged = judgeColours(
          check.patches.map(({ device, spot, aim, measured, estimated }) => ({
            device,
            spot,
            aim: aim as unknown as Lab,
            measured: measured as unknown as Lab,
            estimated,
          })),
          { metrics: tried },
        );
        const decisive = [...judged.metrics]
          .filter(({ value }) => Number.isFinite(value))
          .sort((a, b) => b.value / b.limit - a.value / a.limit)[0];
        return { check, judged, decisive };
      }),
    [data, tried],
  );
  if (data === undefined) return null;
  const conform = rows.filter(
    ({ judged }) => judged.verdict === 'conforms' || judged.verdict === 'near',
  ).length;
  return (
    <div className="panel">
      <header>
        <h2>Tried on past checks</h2>
        <span className="quiet">
          {rows.length === 0
            ? 'there is no check against aims yet'
            : `${conform} of ${rows.length} would conform; paper as it was judged then`}
        </span>
      </header>
      {rows.length > 0 && (
        <table className="table tight" style={{ border: 0 }}>
          <thead>
            <tr>
              <th>Check</th>
              <th>Judged then</th>
              <th>By these</th>
              <th>Nearest to its limit</th>
              <th style={{ width: 110 }} />
            </tr>
          </thead>
          <tbody>
            {rows.map(({ check, judged, decisive }) => (
              <tr key={check.id}>
                <td>
                  {check.condition} <span className="quiet">{formatDay(check.madeMs)}</span>
                </td>
                <td>
                  <StatusMark status={check.verdict as Status} />
                  <br />
                  <span className="quiet">{check.tolerances}</span>
                </td>
                <td>
                  <StatusMark status={judged.verdict as Status} />
                </td>
                <td>
                  {decisive === undefined
                    ? 'no patches'
                    : `${decisive.group}, ${decisive.statistic} ${decisive.quantity}: ${decisive.value.toFixed(2)}`}
                </td>
                <td>
                  <LimitBar value={shareOf(judged)} limit={1} status={judged.verdict as Status} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
