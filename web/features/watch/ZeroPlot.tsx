'use client';

import { useMemo } from 'react';
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { figuresOfKept } from '@melto/core/watch/watchFigures';
import { watchDifferences } from '@melto/core/watch/watchDifferences';
import type { WatchView } from '@melto/services/watch/watchView';
import { Figure } from '@/ui/Figure';
import { formatDay } from '@/ui/format';
import { TIME_AXIS, VALUE_AXIS, WATCH_MARGIN } from './timeAxis';

const HEIGHT = 150;
const DASHES = ['', '6 3', '2 3', '8 3 2 3', '1 4'];

/** ΔE00 to the zero reading, of each group. */
export function ZeroPlot({
  checks,
  zero,
  limit,
}: {
  checks: WatchView['checks'];
  zero: readonly (number | null)[];
  limit: number;
}) {
  const data = useMemo(() => {
    const base = figuresOfKept(zero);
    return checks.map(({ madeMs, figures }) => {
      const { mean, groups } = watchDifferences(figuresOfKept(figures), base);
      return {
        t: madeMs,
        mean,
        ...Object.fromEntries(groups.map((group) => [group.group, group.mean])),
      } as Record<string, number>;
    });
  }, [checks, zero]);
  const names = Object.keys(data[0] ?? {}).filter((name) => name !== 't' && name !== 'mean');
  const most = Math.max(limit, ...data.flatMap((row) => [row.mean, ...names.map((name) => row[name])]));
  const step = most > 4 ? 2 : most > 2 ? 1 : 0.5;
  const top = Math.ceil((most * 1.02) / step) * step;
  return (
    <Figure
      title="ΔE00 to the zero reading"
      note="thick: mean of all; thin: groups"
      table={{
        head: ['check', 'mean', ...names],
        rows: data.map((row) => [
          formatDay(row.t),
          row.mean.toFixed(2),
          ...names.map((name) => row[name].toFixed(2)),
        ]),
      }}
    >
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <LineChart data={data} margin={WATCH_MARGIN} accessibilityLayer>
          <CartesianGrid stroke="var(--wash)" vertical={false} />
          <XAxis {...TIME_AXIS} />
          <YAxis
            domain={[0, top]}
            ticks={Array.from({ length: Math.round(top / step) + 1 }, (_, i) => i * step)}
            {...VALUE_AXIS}
          />
          <Tooltip
            isAnimationActive={false}
            labelFormatter={(value) => formatDay(Number(value))}
            formatter={(value) => Number(value).toFixed(2)}
          />
          <ReferenceLine y={limit} stroke="var(--text)" strokeDasharray="4 3" />
          {names.map((name, i) => (
            <Line
              key={name}
              dataKey={name}
              stroke="var(--quiet)"
              strokeDasharray={DASHES[i]}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          <Line
            dataKey="mean"
            stroke="var(--text)"
            strokeWidth={2}
            dot={{ r: 2 }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
      <p className="legend small quiet">
        {names.map((name, i) => (
          <span key={name}>
            <svg width="26" height="6" aria-hidden>
              <path d="M0 3H26" stroke="var(--quiet)" strokeWidth="1.4" strokeDasharray={DASHES[i]} />
            </svg>{' '}
            {name}
          </span>
        ))}
      </p>
    </Figure>
  );
}
