'use client';

import { send } from '@/ui/api';
import { CORRECT_EVENNESS } from '@/endpoints/calibration';
import { Line, CartesianGrid, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Evenness } from '@melto/core/evenness/evenness';
import type { PressView } from '@melto/services/calibration/pressView';
import { Figure } from '@/ui/Figure';
import { axisLabel, sideAxis, TICK } from '@/ui/axes';
import { percent } from './inkLine';
import { FromReading } from './FromReading';
import { PressFrame } from './PressFrame';

export function EvennessSurface({ view }: { view: PressView<'evenness'> }) {
  const { result, reached, condition } = view;
  return (
    <PressFrame
      view={view}
      title="Evenness"
      sentence={
        result === null
          ? view.readings.length > 0
            ? 'A reading across the width is ready: correct the zones.'
            : 'Before anything else: solids and midtones across the width. Print the chart, let it rest, read it.'
          : reached === null
            ? `ΔE00 ${result.summary.mean.toFixed(2)} across the width before the correction. Print the chart again to see what is reached.`
            : `ΔE00 across the width ${result.summary.mean.toFixed(2)} before, ${reached.summary.mean.toFixed(2)} after the correction`
      }
      about={
        result === null
          ? undefined
          : `from sheet ${result.summary.code}; set on the device for every later sheet`
      }
      print={{ kind: 'evenness', title: 'Evenness across the width', through: 'none', choice: false }}
    >
      <FromReading
        calls={CORRECT_EVENNESS}
        readings={view.readings}
        onMake={(readingId) => send(CORRECT_EVENNESS, { params: { id: condition.id }, body: { readingId } })}
        act={result === null ? 'Correct the zones' : 'Correct further'}
        first={result === null}
      />
      {result !== null && (
        <>
          <div className="two">
            <Widths title="Density across the width, before" evenness={result.detail.evenness} />
            {reached !== null ? (
              <Widths title="After the correction" evenness={reached.detail} />
            ) : (
              <div className="panel quiet">Print the chart again to see the width after the correction.</div>
            )}
          </div>
          <div className="panel">
            <header>
              <h2>Corrections</h2>
              <span className="quiet">
                change of each ink&apos;s density by zone, per cent, left to right
              </span>
            </header>
            <table className="table tight">
              <thead>
                <tr>
                  <th>Ink</th>
                  {result.detail.zones[0].map((_, zone) => (
                    <th key={zone} className="num">
                      {zone + 1}
                    </th>
                  ))}
                  <th className="num">ΔE00 before</th>
                  <th className="num">after</th>
                </tr>
              </thead>
              <tbody>
                {result.detail.evenness.inks.map(({ ink, deltaE }, i) => (
                  <tr key={ink}>
                    <td>{ink}</td>
                    {result.detail.zones[i].map((share, zone) => (
                      <td key={zone} className="num">
                        {share > 0 ? '+' : ''}
                        {percent(share)}
                      </td>
                    ))}
                    <td className="num">{average(deltaE)}</td>
                    <td className="num">{reached === null ? '–' : average(reached.detail.inks[i].deltaE)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </PressFrame>
  );
}

function average(values: readonly number[]): string {
  return (values.reduce((sum, value) => sum + value, 0) / values.length).toFixed(2);
}

const DASHES = ['', '6 3', '2 3', '8 3 2 3'];

/** Departure of each ink's solid from its mean over the width. */
function Widths({ title, evenness }: { title: string; evenness: Evenness }) {
  const shares = evenness.inks.map(({ smooth }) => {
    const middle = smooth.reduce((sum, value) => sum + value, 0) / smooth.length;
    return smooth.map((value) => (100 * value) / middle - 100);
  });
  const data = shares[0].map((_, zone) => ({
    zone: zone + 1,
    ...Object.fromEntries(evenness.inks.map(({ ink }, i) => [ink, shares[i][zone]])),
  }));
  return (
    <Figure
      title={title}
      table={{
        head: ['zone', ...evenness.inks.map(({ ink }) => `${ink}, %`)],
        rows: shares[0].map((_, zone) => [zone + 1, ...shares.map((ink) => ink[zone].toFixed(2))]),
      }}
      figures={
        <p className="figures">
          <span>
            mean ΔE00 <b>{evenness.mean.toFixed(2)}</b>
          </span>
          <span>
            largest <b>{evenness.largest.toFixed(2)}</b>
          </span>
          <span className="quiet">C solid, M dashed, Y dotted, K dash and dot</span>
        </p>
      }
    >
      <ResponsiveContainer width="100%" height={200}>
        <LineChart data={data} margin={{ top: 8, right: 12, bottom: 16, left: 0 }} accessibilityLayer>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            dataKey="zone"
            tick={TICK}
            tickLine={false}
            stroke="var(--rule)"
            label={axisLabel('zone, left to right')}
          />
          <YAxis {...sideAxis([-8, -4, 0, 4, 8], 'density off mean, %')} />
          {evenness.inks.map(({ ink }, i) => (
            <Line
              key={ink}
              dataKey={ink}
              stroke="var(--text)"
              strokeDasharray={DASHES[i]}
              strokeWidth={1.6}
              dot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </Figure>
  );
}
