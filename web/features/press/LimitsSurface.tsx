'use client';

import { PROPOSE_LIMITS, SET_LIMITS } from '@/endpoints/calibration';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { LimitProposal, LimitReason } from '@melto/core/limits/proposeLimit';
import { median } from '@melto/core/numerics/statistics';
import type { PressView } from '@melto/services/calibration/pressView';
import { problemWords, send } from '@/ui/api';
import { isWhole, numberOf } from '@/ui/numberOf';
import { inkLine } from './inkLine';
import { useMay } from '@/ui/May';
import { FromReading } from './FromReading';
import { LimitPlot } from './LimitPlot';
import { PressFrame } from './PressFrame';

const REASONS: Readonly<Record<LimitReason, string>> = {
  none: 'gains to the end: no limit needed',
  'little more chroma': 'past it, more ink adds hardly any chroma',
  'little darker': 'past it, more ink gets hardly any darker',
  'hue turns': 'past it, the hue turns by more than 6°',
};

/** Per cent; the service refuses less. */
const LEAST_LIMIT = 20;

export function LimitsSurface({ view }: { view: PressView<'limits'> }) {
  const maySet = useMay(SET_LIMITS);
  const { result, shown, condition } = view;
  const raw = view.readings.filter(({ curvesResultId }) => curvesResultId === null);
  return (
    <PressFrame
      view={view}
      title="Limits"
      sentence={
        result === null
          ? raw.length > 0
            ? 'A reading of raw ramps is ready: have limits proposed.'
            : 'Print ramps with a linear front end, let them rest, and read them.'
          : `${result.summary.edited ? 'set by hand' : 'as proposed'}, device values; total ${(100 * result.summary.total).toFixed(0)} % at the device`
      }
      about={result === null ? undefined : `from sheet ${result.summary.code}`}
      print={{ kind: 'ramps', title: 'Ramps and total ink', through: 'none', choice: false }}
    >
      <FromReading
        calls={PROPOSE_LIMITS}
        readings={raw}
        onMake={(readingId) => send(PROPOSE_LIMITS, { params: { id: condition.id }, body: { readingId } })}
        act="Propose limits"
        first={result === null}
      />
      {result !== null && shown !== null && (
        <Editor
          key={shown.id}
          view={view}
          {...result}
          editable={maySet && shown.inForce && shown.borrowedFrom === null}
        />
      )}
    </PressFrame>
  );
}

function Editor({
  view,
  summary,
  detail,
  editable,
}: NonNullable<PressView<'limits'>['result']> & { view: PressView<'limits'>; editable: boolean }) {
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const [limits, setLimits] = useState(summary.limits.map((limit) => Math.round(limit * 100)));
  const [total, setTotal] = useState(Math.round(summary.total * 100));
  const changed =
    limits.some((limit, i) => limit !== Math.round(summary.limits[i] * 100)) ||
    total !== Math.round(summary.total * 100);
  const [wrong, setWrong] = useState<ReadonlySet<string>>(new Set());
  const mark = (field: string, is: boolean): void =>
    setWrong((before) => {
      const next = new Set(before);
      if (is) next.add(field);
      else next.delete(field);
      return next;
    });
  const others = view.dmax.filter(({ code, dmax }) => code !== summary.code && dmax.length === 4);
  const usual = (ink: number): string =>
    others.length === 0 ? '–' : median(others.map(({ dmax }) => dmax[ink])).toFixed(2);
  const keep = async (): Promise<void> => {
    try {
      await send(SET_LIMITS, {
        params: { id: view.condition.id },
        body: { limits: limits.map((limit) => limit / 100), total: total / 100 },
      });
      router.replace(`/conditions/${view.condition.id}/limits`);
      router.refresh();
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return (
    <>
      <div className="limit-grid">
        {detail.proposals.map((proposal, i) => (
          <InkPanel
            key={proposal.ink}
            proposal={proposal}
            colour={inkLine(proposal.ink, detail.colours[i])}
            value={limits[i]}
            onChange={
              editable ? (value) => setLimits(limits.map((old, k) => (k === i ? value : old))) : undefined
            }
          />
        ))}
        {detail.totalInk !== null && (
          <div className="panel">
            <header>
              <h2>Total ink</h2>
              <span className="quiet">{total} % at the device</span>
            </header>
            <LimitPlot
              name="total ink"
              lines={[
                {
                  points: detail.totalInk.steps.map((step) => [100 * step.total, step.density]),
                  colour: 'var(--text)',
                  dots: true,
                },
                {
                  points: [
                    [200, detail.totalInk.darkest - detail.totalInk.tolerance],
                    [400, detail.totalInk.darkest - detail.totalInk.tolerance],
                  ],
                  colour: 'var(--quiet)',
                  dashed: true,
                  thin: true,
                },
              ]}
              from={200}
              to={400}
              bottom={
                Math.floor(10 * Math.min(...detail.totalInk.steps.map(({ density }) => density))) / 10 - 0.1
              }
              top={Math.ceil(10 * detail.totalInk.darkest) / 10}
              value={total}
              proposed={Math.round(100 * detail.totalInk.total)}
              step={1}
              unit="total ink, %, full black and equal C, M, Y"
              side="density"
              onChange={(value) => editable && setTotal(value)}
            />
            <p className="small quiet">
              the least total within {detail.totalInk.tolerance.toFixed(2)} D of the darkest,{' '}
              {detail.totalInk.darkest.toFixed(2)} D over paper
            </p>
          </div>
        )}
        <div className="panel">
          <header>
            <h2>In figures</h2>
            {editable && (
              <Button
                size="small"
                variant="contained"
                disabled={!changed || wrong.size > 0}
                onClick={() => void keep()}
              >
                Keep these limits
              </Button>
            )}
          </header>
          <table className="table tight">
            <thead>
              <tr>
                <th>Ink</th>
                <th className="num">Limit, %</th>
                <th className="num">proposed</th>
                <th
                  className="num"
                  title="Density of the solid over paper, through its ink’s filter, status E"
                >
                  Dmax over paper
                </th>
                <th className="num">usual</th>
              </tr>
            </thead>
            <tbody>
              {detail.proposals.map(({ ink, limit, dmax }, i) => (
                <tr key={ink}>
                  <td>{ink}</td>
                  <td className="num">
                    {editable ? (
                      <LimitField
                        name={`Limit of ${ink}, per cent`}
                        value={limits[i]}
                        least={LEAST_LIMIT}
                        most={100}
                        onValue={(value) => setLimits(limits.map((old, k) => (k === i ? value : old)))}
                        onWrong={(is) => mark(ink, is)}
                      />
                    ) : (
                      <b>{limits[i]}</b>
                    )}
                  </td>
                  <td className="num">{Math.round(100 * limit)}</td>
                  <td className="num">{dmax.toFixed(2)}</td>
                  <td className="num">{usual(i)}</td>
                </tr>
              ))}
              <tr>
                <td>Total</td>
                <td className="num">
                  {editable ? (
                    <LimitField
                      name="Total ink, per cent"
                      value={total}
                      least={100}
                      most={100 * limits.length}
                      onValue={setTotal}
                      onWrong={(is) => mark('total', is)}
                    />
                  ) : (
                    <b>{total}</b>
                  )}
                </td>
                <td className="num">
                  {detail.totalInk === null ? '–' : Math.round(100 * detail.totalInk.total)}
                </td>
                <td className="num">{detail.totalInk?.darkest.toFixed(2) ?? '–'}</td>
                <td className="num">–</td>
              </tr>
            </tbody>
          </table>
          <p className="small quiet" style={{ margin: '8px 0' }}>
            Densities over paper, ISO 5-3 status E; usual: the middle of{' '}
            {others.length === 0
              ? 'other sheets, once there are some'
              : `${others.length} other ${others.length === 1 ? 'sheet' : 'sheets'}`}
            . The limits add up to {limits.reduce((a, b) => a + b, 0)} %.
          </p>
        </div>
      </div>
    </>
  );
}

/** A limit in whole per cent, typed; what is no limit stays in the field and is not taken. */
function LimitField({
  name,
  value,
  least,
  most,
  onValue,
  onWrong,
}: {
  name: string;
  value: number;
  least: number;
  most: number;
  onValue: (value: number) => void;
  onWrong: (wrong: boolean) => void;
}) {
  const [text, setText] = useState<string>();
  const right = text === undefined || isWhole(text, least, most);
  return (
    <input
      className="number-cell"
      aria-label={name}
      aria-invalid={!right}
      title={`${least} to ${most}`}
      inputMode="numeric"
      value={text ?? String(value)}
      onChange={(event) => {
        const typed = event.target.value;
        setText(typed);
        const fits = isWhole(typed, least, most);
        onWrong(!fits);
        if (fits) onValue(numberOf(typed));
      }}
      // What is right is the value again, which the plot may move as well.
      onBlur={() => right && setText(undefined)}
    />
  );
}

/** How far the hue has turned at a limit (per cent) from the patch at 70 %, degrees. */
function hueTurn({ smooth }: LimitProposal, limit: number): number {
  const from = smooth[70]?.hueDeg ?? 0;
  const to = smooth[Math.round(limit)]?.hueDeg ?? from;
  return Math.abs(((to - from + 540) % 360) - 180);
}

function InkPanel({
  proposal,
  colour,
  value,
  onChange,
}: {
  proposal: LimitProposal;
  colour: string;
  value: number;
  onChange?: (value: number) => void;
}) {
  const black = proposal.ink === 'K';
  const quantity = ({ chroma, lightness }: { chroma: number; lightness: number }): number =>
    black ? lightness : chroma;
  const top = Math.ceil(Math.max(...proposal.smooth.map(quantity)) / 20) * 20;
  const densityTop = Math.ceil(proposal.dmax * 2) / 2;
  return (
    <div className="panel">
      <header>
        <h2>{proposal.ink}</h2>
        <span className="quiet">{value} %</span>
      </header>
      <LimitPlot
        name={proposal.ink}
        lines={[
          {
            points: proposal.smooth.map((point) => [100 * point.tone, (top * point.density) / densityTop]),
            colour: 'var(--quiet)',
            thin: true,
          },
          { points: proposal.smooth.map((point) => [100 * point.tone, quantity(point)]), colour },
          { points: proposal.read.map((point) => [100 * point.tone, quantity(point)]), colour, dots: 'only' },
        ]}
        from={0}
        to={100}
        top={top}
        value={value}
        proposed={Math.round(100 * proposal.limit)}
        step={1}
        unit={`ink, %; thin line: density to ${densityTop.toFixed(1)}`}
        side={black ? 'L*' : 'chroma'}
        onChange={(next) => onChange?.(next)}
      />
      <p className="small quiet">
        {REASONS[proposal.reason]}
        {!black && `; hue ${hueTurn(proposal, value).toFixed(1)}° from its 70 % at the limit`}
      </p>
    </div>
  );
}
