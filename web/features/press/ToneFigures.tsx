'use client';

import { Button } from '@mui/material';
import { useState } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { PressView } from '@melto/services/calibration/pressView';
import { Figure } from '@/ui/Figure';
import { hundredAxis, sideAxis } from '@/ui/axes';
import { inkLine, percent } from './inkLine';

type Result = NonNullable<PressView<'curves'>['result']>;
const HEIGHT = 230;
const MARGIN = { top: 8, right: 12, bottom: 16, left: 0 };

/** Tone of one ink: aim, before, predicted and reached; all curves; and the table behind. */
export function ToneFigures({ view, result }: { view: PressView<'curves'>; result: Result }) {
  const { detail, summary } = result;
  // How far each ink is from its aim, as the newest sheet has it: the farthest is shown first.
  const farthest = detail.inks.map(
    (own) => view.reached?.detail.find((other) => other.ink === own.ink)?.largest ?? own.largest,
  );
  const [ink, setInk] = useState(() => farthest.indexOf(Math.max(...farthest)));
  const chosen = detail.inks[ink];
  const reached = view.reached?.detail.find((other) => other.ink === chosen.ink);
  const at = (nominal: number): number | undefined =>
    reached?.steps.find((step) => Math.abs(step.nominal - nominal) < 0.006)?.measured;
  const off = (value: number | undefined, aim: number): number | undefined =>
    value === undefined ? undefined : 100 * (value - aim);
  const data = [
    { tone: 0, before: 0, predicted: 0, reached: reached === undefined ? undefined : 0 },
    ...chosen.steps.map((step) => ({
      tone: 100 * step.nominal,
      before: off(step.measured, step.aim),
      predicted: off(step.predicted, step.aim),
      reached: off(at(step.nominal), step.aim),
    })),
  ];
  const most = Math.max(4, ...data.flatMap((row) => [row.before, row.reached].map((v) => Math.abs(v ?? 0))));
  const top = Math.ceil(most / 4) * 4;
  const wrong = detail.inks.flatMap((other) => other.wrong);
  const colour = inkLine(chosen.ink, detail.colours[ink]);
  return (
    <>
      <p className="row small" style={{ gap: 4, marginBottom: -4 }}>
        <span className="quiet" style={{ paddingRight: 8 }}>
          Ink, largest departure in %
        </span>
        {detail.inks.map((other, i) => (
          <Button
            key={other.ink}
            size="small"
            variant={i === ink ? 'contained' : 'outlined'}
            aria-pressed={i === ink}
            onClick={() => setInk(i)}
            sx={{ minWidth: 36 }}
          >
            {other.ink}&nbsp;<span style={{ fontWeight: 400 }}>{percent(farthest[i], 2)}</span>
          </Button>
        ))}
      </p>
      <div className="two">
        <Figure
          title={`Tone of ${chosen.ink} against its aim`}
          table={{
            head: ['tone', 'before', 'predicted', 'reached'],
            rows: data.map((row) => [
              row.tone.toFixed(1),
              ...[row.before, row.predicted, row.reached].map((v) => (v === undefined ? '–' : v.toFixed(2))),
            ]),
          }}
          figures={
            <p className="figures">
              <span>
                before <b>{percent(chosen.largest)} %</b> at most
              </span>
              <span>
                reached <b>{reached === undefined ? '–' : `${percent(reached.largest, 2)} %`}</b>
              </span>
              <span>
                one reading <b>± {percent(chosen.noise, 2)}</b>
              </span>
            </p>
          }
        >
          <ResponsiveContainer width="100%" height={HEIGHT}>
            <LineChart data={data} margin={MARGIN} accessibilityLayer>
              <CartesianGrid stroke="var(--rule)" vertical={false} />
              <XAxis {...hundredAxis('tone', 'tone value asked, %')} />
              <YAxis {...sideAxis([-top, -top / 2, 0, top / 2, top], 'above or below the aim, %')} />
              <Line
                dataKey={() => 0}
                stroke="var(--text)"
                strokeDasharray="4 3"
                strokeWidth={1}
                dot={false}
                isAnimationActive={false}
              />
              <Line
                dataKey="before"
                stroke="var(--quiet)"
                strokeWidth={1}
                dot={false}
                isAnimationActive={false}
              />
              <Line
                dataKey="predicted"
                stroke={colour}
                strokeWidth={1}
                strokeDasharray="2 3"
                dot={false}
                isAnimationActive={false}
              />
              <Line
                dataKey="reached"
                stroke={colour}
                strokeWidth={2}
                dot={{ r: 2.5, fill: colour, stroke: 'var(--text)', strokeWidth: 0.5 }}
                connectNulls
                isAnimationActive={false}
              />
            </LineChart>
          </ResponsiveContainer>
          <p className="small quiet">
            dashed the aim · thin the sheet before · dotted predicted
            {reached === undefined
              ? '; print ramps through the curves to see what is reached'
              : ' · with dots reached'}
          </p>
        </Figure>
        <Figure
          title="Curves in force"
          note="document tone to device"
          table={{
            head: ['tone', ...detail.inks.map((other) => other.ink)],
            rows: Array.from({ length: 21 }, (_, i) => [
              (5 * i).toFixed(0),
              ...detail.curves.map((curve) => percent(curve[Math.round((256 * i) / 20)], 2)),
            ]),
          }}
          figures={
            <p className="figures">
              <span>
                total ink, device{' '}
                <b>{summary.total === null ? 'no limit set' : `${percent(summary.total.device, 0)} %`}</b>
              </span>
              <span>
                at the input <b>{summary.total === null ? '–' : `${percent(summary.total.input, 0)} %`}</b>
              </span>
              <span>
                limits{' '}
                <b>
                  {detail.limits.every((limit) => limit === 1)
                    ? 'none'
                    : detail.limits.map((limit) => percent(limit, 0)).join(' ')}
                </b>
              </span>
            </p>
          }
        >
          <ResponsiveContainer width="100%" height={HEIGHT}>
            <LineChart
              data={Array.from({ length: 65 }, (_, i) => ({
                tone: (100 * i) / 64,
                straight: (100 * i) / 64,
                ...Object.fromEntries(detail.curves.map((curve, k) => [`c${k}`, 100 * curve[4 * i]])),
              }))}
              margin={MARGIN}
              accessibilityLayer
            >
              <CartesianGrid stroke="var(--rule)" vertical={false} />
              <XAxis {...hundredAxis('tone', 'document tone, %')} />
              <YAxis {...sideAxis([0, 25, 50, 75, 100], 'device, %')} />
              <Line
                dataKey="straight"
                stroke="var(--quiet)"
                strokeDasharray="4 3"
                strokeWidth={1}
                dot={false}
                isAnimationActive={false}
              />
              {detail.curves.map((_, k) => (
                <Line
                  key={k}
                  dataKey={`c${k}`}
                  stroke={inkLine(detail.inks[k].ink, detail.colours[k])}
                  strokeWidth={2}
                  dot={false}
                  isAnimationActive={false}
                />
              ))}
            </LineChart>
          </ResponsiveContainer>
          <p className="small quiet">lines in the inks&apos; own printed colours</p>
        </Figure>
      </div>
      {wrong.length > 0 && (
        <p className="notice">
          Left out of sheet {result.summary.code}, since the rest of their ramps contradicts them:{' '}
          {wrong
            .map((patch) => `${patch.ink} ${percent(patch.tone, 0)} % (${percent(patch.off)} % off)`)
            .join(', ')}
          . Read their strips again.
        </p>
      )}
      <div className="panel">
        <header>
          <h2>Steps of {chosen.ink}</h2>
          <span className="quiet">tone values, per cent</span>
        </header>
        <div style={{ maxHeight: 300, overflow: 'auto' }} tabIndex={0}>
          <table className="table tight">
            <thead>
              <tr>
                {['nominal, %', 'measured', 'aim', 'correction', 'predicted', 'reached', 'copies'].map(
                  (word) => (
                    <th key={word} className="num">
                      {word}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {chosen.steps.map((step) => (
                <tr key={step.nominal}>
                  {[
                    step.nominal,
                    step.measured,
                    step.aim,
                    step.correction,
                    step.predicted,
                    at(step.nominal),
                  ].map((value, i) => (
                    <td key={i} className="num">
                      {value === undefined ? '–' : percent(value)}
                    </td>
                  ))}
                  <td className="num">{step.copies}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </>
  );
}
