'use client';

import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import type { ChartedSeries } from '@melto/core/watch/watchCharts';
import type { WatchView } from '@melto/services/watch/watchView';
import { Figure } from '@/ui/Figure';
import { evenTicks } from '@/ui/evenTicks';
import { formatDay, formatFigure } from '@/ui/format';
import { TIME_AXIS, VALUE_AXIS, WATCH_MARGIN } from './timeAxis';

const HEIGHT = 210;

/** One series over its checks: single values with their limits, the EWMA with its own band, CUSUM in the table. */
export function ControlChartPlot({
  series: { series, values, chart },
  checks,
}: {
  series: ChartedSeries;
  checks: WatchView['checks'];
}) {
  const data = checks.map(({ madeMs }, i) => ({
    t: madeMs,
    value: values[i],
    ewma: chart !== undefined && i >= BASELINE_CHECKS ? chart.ewma[i] : null,
    band:
      chart !== undefined && i >= BASELINE_CHECKS
        ? [chart.centre - chart.ewmaLimit[i], chart.centre + chart.ewmaLimit[i]]
        : null,
    over: chart !== undefined && chart.over[i].length > 0 ? values[i] : null,
  }));
  const reach = chart === undefined ? 0.5 : chart.individualLimit;
  const centre = chart?.centre ?? values[0];
  const low = Math.min(centre - reach, ...values);
  const high = Math.max(centre + reach, ...values);
  const pad = (high - low) * 0.08;
  return (
    <Figure
      title={`${series.group}, ${series.quantity}`}
      note={
        chart === undefined
          ? `the first ${BASELINE_CHECKS} checks give centre and limits`
          : 'dots: checks; line: EWMA with its band; dashed: limits of single checks'
      }
      table={{
        head: ['check', series.quantity, 'EWMA', 'CUSUM +', 'CUSUM −', 'over'],
        rows: checks.map(({ madeMs }, i) => [
          formatDay(madeMs),
          formatFigure(values[i], 2),
          chart === undefined ? '' : formatFigure(chart.ewma[i], 2),
          chart === undefined ? '' : formatFigure(chart.cusumHigh[i], 1),
          chart === undefined ? '' : formatFigure(chart.cusumLow[i], 1),
          chart === undefined ? '' : chart.over[i].join(', '),
        ]),
      }}
    >
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <ComposedChart data={data} margin={WATCH_MARGIN} accessibilityLayer>
          <CartesianGrid stroke="var(--wash)" vertical={false} />
          <XAxis {...TIME_AXIS} />
          <YAxis domain={[low - pad, high + pad]} {...VALUE_AXIS} {...evenTicks(low - pad, high + pad)} />
          <Tooltip
            isAnimationActive={false}
            labelFormatter={(value) => formatDay(Number(value))}
            formatter={(value) =>
              Array.isArray(value)
                ? value.map((v) => formatFigure(Number(v), 2)).join(' … ')
                : formatFigure(Number(value), 2)
            }
          />
          {chart !== undefined && (
            <>
              <Area
                dataKey="band"
                name="band of the EWMA"
                stroke="none"
                fill="var(--wash)"
                fillOpacity={1}
                isAnimationActive={false}
                activeDot={false}
              />
              {[chart.centre - chart.individualLimit, chart.centre + chart.individualLimit].map((y) => (
                <ReferenceLine key={y} y={y} stroke="var(--text)" strokeDasharray="4 3" />
              ))}
              <ReferenceLine y={chart.centre} stroke="var(--quiet)" />
            </>
          )}
          <Line
            dataKey="ewma"
            name="EWMA"
            stroke="var(--text)"
            strokeWidth={1.5}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="value"
            name={series.quantity}
            stroke="none"
            dot={{ r: 2.4, fill: 'var(--text)', stroke: 'none' }}
            isAnimationActive={false}
          />
          <Line
            dataKey="over"
            name="over a limit"
            stroke="none"
            dot={{ r: 5, fill: 'none', stroke: 'var(--near)', strokeWidth: 2 }}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </Figure>
  );
}
