'use client';

import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { ViewingLight } from '@melto/services/light/viewingLights';
import { axisLabel, TICK } from '@/ui/axes';

const FROM = 300;
const TO = 800;

/** Relative power of a light by wavelength, D50 beside it. */
export function SpectrumPlot({ light, beside }: { light: ViewingLight; beside?: ViewingLight }) {
  const lines = [
    ...(beside === undefined || beside.key === light.key
      ? []
      : [{ own: beside, dash: '3 3', colour: 'var(--quiet)' }]),
    { own: light, dash: undefined, colour: 'var(--text)' },
  ];
  return (
    <ResponsiveContainer width="100%" height={240}>
      <LineChart margin={{ top: 8, right: 12, bottom: 18, left: -20 }} accessibilityLayer>
        <CartesianGrid stroke="var(--rule)" strokeOpacity={0.5} />
        <XAxis
          dataKey="nm"
          type="number"
          domain={[FROM, TO]}
          ticks={[300, 400, 500, 600, 700, 800]}
          tick={TICK}
          tickLine={false}
          stroke="var(--rule)"
          label={axisLabel('nm')}
          allowDuplicatedCategory={false}
        />
        <YAxis domain={[0, 1]} ticks={[0, 0.5, 1]} tick={TICK} tickLine={false} axisLine={false} width={48} />
        {lines.map(({ own, dash, colour }) => (
          <Line
            key={own.key}
            data={own.power.map((power, i) => ({ nm: own.grid.startNm + i * own.grid.stepNm, power }))}
            dataKey="power"
            stroke={colour}
            strokeDasharray={dash}
            strokeWidth={dash === undefined ? 1.6 : 1}
            dot={false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
