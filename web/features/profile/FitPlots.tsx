'use client';

import {
  Bar,
  BarChart,
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts';
import type { FitReport } from '@melto/core/characterise/fitReport';
import type { ProfileDetail } from '@melto/services/ledger/kinds/profileKind';
import { axisLabel, hundredAxis, TICK, tickWords } from '@/ui/axes';
import { screenOf } from '@/ui/Swatch';

const HEIGHT = 190;

/** Counts of cross-validated errors, with the repeatability of the reading beside them. */
export function ErrorHistogram({ report }: { report: FitReport }) {
  const { binWidth, counts } = report.histogram;
  const last = Math.max(10, counts.reduce((at, count, i) => (count > 0 ? i : at), 0) + 2);
  const data = counts.slice(0, last).map((count, i) => ({ from: Number((i * binWidth).toFixed(2)), count }));
  const repeat = report.repeatability?.mean;
  // The last bar of all takes what lies beyond, and says so.
  const beyond = counts[counts.length - 1] > 0;
  const lastFrom = ((counts.length - 1) * binWidth).toFixed(2);
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <BarChart
        data={data}
        margin={{ top: 18, right: 8, bottom: 16, left: -16 }}
        barCategoryGap={1}
        accessibilityLayer
      >
        <XAxis
          dataKey="from"
          type="number"
          domain={[0, last * binWidth]}
          ticks={Array.from({ length: Math.floor(last * binWidth * 4) + 1 }, (_, i) => i / 4)}
          tick={TICK}
          tickLine={false}
          stroke="var(--rule)"
          label={axisLabel(beyond ? `ΔE00; the last bar: ${lastFrom} and more` : 'ΔE00')}
        />
        <YAxis tick={TICK} tickLine={false} axisLine={false} width={48} />
        <Bar dataKey="count" fill="var(--quiet)" isAnimationActive={false} />
        {repeat !== undefined && (
          <ReferenceLine
            x={repeat}
            stroke="var(--text)"
            strokeDasharray="4 3"
            label={{
              value: `repeats ${repeat.toFixed(2)}`,
              position: 'top',
              fontSize: 12,
              fill: 'var(--text)',
            }}
          />
        )}
      </BarChart>
    </ResponsiveContainer>
  );
}

/** C dashed, M dotted, Y dash and dot, K solid. */
const SEPARATION_LINES = [
  { dash: '6 3', width: 1 },
  { dash: '2 3', width: 1 },
  { dash: '8 3 2 3', width: 1 },
  { dash: undefined, width: 2 },
] as const;

/** a* and b* of an asked neutral ramp through the profile; for inks the separation as well, in per cent. */
export function NeutralPlot({ neutral }: { neutral: ProfileDetail['neutral'] }) {
  const count = neutral[0]?.device.length ?? 0;
  const inks = count > 3;
  const data = neutral.map(({ asked, lab, device }) => ({
    asked,
    a: lab[1],
    b: lab[2],
    ...(inks ? Object.fromEntries(device.map((value, i) => [`ink${i}`, 100 * value])) : {}),
  }));
  const most = Math.max(2, ...data.map(({ a, b }) => Math.max(Math.abs(a), Math.abs(b))));
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <LineChart data={data} margin={{ top: 8, right: 28, bottom: 16, left: -16 }} accessibilityLayer>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <XAxis {...hundredAxis('asked', 'L* asked')} />
        {inks && (
          <YAxis
            yAxisId="ink"
            orientation="right"
            domain={[0, 100]}
            ticks={[0, 100]}
            tick={TICK}
            tickLine={false}
            axisLine={false}
            width={34}
          />
        )}
        {inks &&
          Array.from({ length: count }, (_, i) => SEPARATION_LINES[i] ?? SEPARATION_LINES[0]).map(
            ({ dash, width }, i) => (
              <Line
                key={i}
                yAxisId="ink"
                dataKey={`ink${i}`}
                stroke="var(--quiet)"
                strokeDasharray={dash}
                strokeWidth={width}
                dot={false}
                isAnimationActive={false}
              />
            ),
          )}
        <YAxis
          domain={[-Math.ceil(most), Math.ceil(most)]}
          tickFormatter={tickWords}
          tick={TICK}
          tickLine={false}
          axisLine={false}
          width={48}
        />
        <ReferenceLine y={0} stroke="var(--text)" strokeWidth={0.6} />
        <Line
          dataKey="a"
          name="a*"
          stroke="var(--text)"
          dot={false}
          isAnimationActive={false}
          label={endLabel(data.length, 'a*', -8)}
        />
        <Line
          dataKey="b"
          name="b*"
          stroke="var(--text)"
          strokeDasharray="5 3"
          dot={false}
          isAnimationActive={false}
          label={endLabel(data.length, 'b*', 12)}
        />
      </LineChart>
    </ResponsiveContainer>
  );
}

/** Names a line at its end. */
function endLabel(count: number, name: string, dy: number) {
  return function EndLabel({ x, y, index }: { x?: string | number; y?: string | number; index?: number }) {
    if (index !== count - 1) return <g />;
    return (
      <text x={Number(x) + 6} y={Number(y) + dy} fontSize={12} fill="var(--text)">
        {name}
      </text>
    );
  };
}

/** Lightness along the raw ramps, each in its own printed colour. */
export function TonePlot({ report }: { report: FitReport }) {
  const lines = [
    ...report.ramps.map(({ channel, points }) => ({ name: channel, points })),
    { name: 'grey', points: [...report.neutralAxis].reverse() },
  ];
  const data = lines[0].points.map((_, i) => ({
    value: Math.round((100 * i) / (lines[0].points.length - 1)),
    ...Object.fromEntries(lines.map(({ name, points }) => [name, points[i].lab[0]])),
  }));
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <LineChart data={data} margin={{ top: 8, right: 12, bottom: 16, left: -16 }} accessibilityLayer>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <XAxis {...hundredAxis('value', 'per cent off the channel')} />
        <YAxis
          domain={[0, 100]}
          ticks={[0, 25, 50, 75, 100]}
          tick={TICK}
          tickLine={false}
          axisLine={false}
          width={48}
        />
        {lines.map(({ name, points }) => (
          <Line
            key={name}
            dataKey={name}
            stroke={
              name === 'grey' ? 'var(--text)' : screenOf(points[Math.floor(points.length * 0.75)].lab).css
            }
            strokeWidth={2}
            dot={false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
