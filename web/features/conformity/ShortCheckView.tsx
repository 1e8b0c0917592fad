'use client';

import { useState } from 'react';
import { formatAgainstLimit } from '@melto/core/judgement/metric';
import type { JudgedPatch, ShortCheckResult } from '@melto/core/conformity/shortCheck';
import type { ResultRow } from '@melto/services/ledger/versions';
import type { ShortCheckDetail } from '@melto/services/ledger/kinds/shortCheckKind';
import { LimitBar } from '@/ui/LimitBar';
import { formatLab, formatMoment } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { screenOf, Swatch } from '@/ui/Swatch';

/** The verdict of a short check in one line. */
export function shortCheckSentence(check: ShortCheckResult): string {
  const failing = check.metrics.filter(({ verdict }) => verdict === 'does-not-conform');
  if (failing.length > 0)
    return `does not conform: ${failing.map(({ name, value, limit }) => `${name} is ${(value - limit).toFixed(2)} over its limit`).join(', ')}`;
  const [mean] = check.metrics;
  return `${check.verdict === 'near' ? 'conforms, near the limit' : 'conforms'}${check.tight ? ', tight' : ''}: mean ${formatAgainstLimit(mean.value, mean.limit)} of ${mean.limit.toFixed(1)}`;
}

/** A short check: figures, all colours, one of them in full. */
export function ShortCheckView({ row, detail }: { row: ResultRow; detail: ShortCheckDetail }) {
  const { check, header } = detail;
  const [picked, setPicked] = useState<string>();
  const sorted = [...check.patches].sort(
    (a, b) => Number(b.inGamut) - Number(a.inGamut) || b.reached - a.reached,
  );
  const patch = sorted.find(({ name }) => name === picked) ?? sorted[0];
  return (
    <div
      className="two"
      style={{ gridTemplateColumns: 'minmax(0,1.2fr) minmax(0,1fr)', alignItems: 'start' }}
    >
      <div className="panel">
        <header>
          <h2>Reached</h2>
          <span className="quiet">
            measured against the colour asked for, scaled to this paper; gives the verdict
          </span>
        </header>
        <table className="table tight" style={{ border: 0 }}>
          <tbody>
            {check.metrics.map((metric) => (
              <tr key={metric.name}>
                <td style={{ width: 20 }}>
                  <StatusShape status={metric.verdict as Status} />
                </td>
                <td>{metric.name}</td>
                <td className="num">
                  <b>{formatAgainstLimit(metric.value, metric.limit)}</b>{' '}
                  <span className="quiet">/ {metric.limit.toFixed(1)}</span>
                </td>
                <td style={{ width: 110 }}>
                  <LimitBar value={metric.value} limit={metric.limit} status={metric.verdict as Status} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="figures">
          <span>
            95 % under <b>{check.reached.p95.toFixed(2)}</b>
          </span>
          <span>
            judged <b>{check.reached.count}</b> of {check.patches.length} colours
          </span>
          <span className="quiet">{Math.round(check.inGamutShare * 100)} % lie in gamut</span>
        </p>
        <header style={{ marginTop: 16 }}>
          <h2>Repeats</h2>
          <span className="quiet">measured against the profile&apos;s own prediction, all colours</span>
        </header>
        <p className="figures">
          <span>
            mean <b>{check.repeats.mean.toFixed(2)}</b>
          </span>
          <span>
            95 % under <b>{check.repeats.p95.toFixed(2)}</b>
          </span>
          <span>
            largest <b>{check.repeats.largest.toFixed(2)}</b>
          </span>
        </p>
        <header style={{ marginTop: 16 }}>
          <h2>All colours, worst first</h2>
        </header>
        <table className="table tight">
          <thead>
            <tr>
              <th />
              <th>Colour</th>
              <th className="num">Asked L* a* b*</th>
              <th className="num">Reached ΔE00</th>
              <th className="num">Repeats ΔE00</th>
            </tr>
          </thead>
          <tbody>
            {sorted.map((each) => (
              <tr
                key={each.name}
                className="pick"
                aria-selected={each === patch}
                onClick={() => setPicked(each.name)}
              >
                <td style={{ width: 44 }}>
                  <Swatch measured={each.measured} aim={each.asked} height={20} label={each.name} />
                </td>
                <td>
                  <button type="button" className="plain" onClick={() => setPicked(each.name)}>
                    {each.name}
                  </button>
                  {!each.inGamut && <span className="quiet small"> out of gamut, not judged</span>}
                </td>
                <td className="num">{formatLab(each.asked)}</td>
                <td className="num">{each.reached.toFixed(2)}</td>
                <td className="num">{each.repeats.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div style={{ display: 'grid', gap: 12 }}>
        <div className="panel">
          <header>
            <h2>Colour by colour</h2>
            <span className="quiet">asked in the lower third</span>
          </header>
          <div className="last" style={{ height: 72 }}>
            {check.patches.map((each) => (
              <button
                key={each.name}
                type="button"
                className="plain"
                aria-label={each.name}
                title={each.name}
                onClick={() => setPicked(each.name)}
                style={{
                  flex: 1,
                  position: 'relative',
                  background: screenOf(each.measured).css,
                  outline: each === patch ? '2px solid var(--text)' : undefined,
                  outlineOffset: 2,
                }}
              >
                <i style={{ background: screenOf(each.asked).css }} />
              </button>
            ))}
          </div>
        </div>
        <PatchFigures patch={patch} />
        <div className="panel">
          <dl className="facts">
            <dt>Sheet</dt>
            <dd className="mono">{header.sheet}</dd>
            <dt>Printed</dt>
            <dd>{formatMoment(header.printedMs)}</dd>
            <dt>Judged</dt>
            <dd>
              {formatMoment(row.madeMs)}, {row.author}
            </dd>
            <dt>Instrument</dt>
            <dd>
              {header.instrument}, {header.mode}, D50/2°
            </dd>
            {header.early && (
              <>
                <dt>Rest</dt>
                <dd>read before it was over</dd>
              </>
            )}
          </dl>
        </div>
      </div>
    </div>
  );
}

function PatchFigures({ patch }: { patch: JudgedPatch }) {
  const difference = patch.measured.map((value, i) => value - patch.asked[i]);
  return (
    <div className="panel">
      <header>
        <h2>{patch.name}</h2>
        <span className="quiet">RGB {patch.device.map((value) => Math.round(value * 255)).join(' ')}</span>
      </header>
      <Swatch measured={patch.measured} aim={patch.asked} height={64} />
      <dl className="facts" style={{ marginTop: 10 }}>
        <dt>Asked</dt>
        <dd>{formatLab(patch.asked)}</dd>
        <dt>Measured, relative</dt>
        <dd>{formatLab(patch.measured)}</dd>
        <dt>Measured, absolute</dt>
        <dd>{formatLab(patch.measuredAbsolute)}</dd>
        <dt>ΔL* Δa* Δb*</dt>
        <dd>
          {difference.map((value) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`).join(' ')}
        </dd>
        <dt>Reached ΔE00</dt>
        <dd>{patch.reached.toFixed(2)}</dd>
        <dt>Repeats ΔE00</dt>
        <dd>{patch.repeats.toFixed(2)}</dd>
      </dl>
    </div>
  );
}
