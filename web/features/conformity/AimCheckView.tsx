'use client';

import { useState } from 'react';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { decidesSentences, metricName, metricValue } from '@melto/core/conformity/checkWords';
import { LimitBar } from '@/ui/LimitBar';
import { StatusShape } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { BudgetBar } from './BudgetBar';
import { CheckFacts } from './CheckFacts';
import { CheckPatches } from './CheckPatches';
import { CheckSheet } from './CheckSheet';
import { DistributionPlot } from './DistributionPlot';
import { GroupTable } from './GroupTable';
import { PaperShift } from './PaperShift';

/** A check against aims: metrics with their margins, what decides it, the sheet, all patches. */
export function AimCheckView({ resultId, detail }: { resultId: number; detail: CheckDetail }) {
  const [picked, setPicked] = useState<number>();
  const decides = decidesSentences(detail);
  const notices = [
    ...(detail.header.early ? ['The sheet was read before its rest was over.'] : []),
    ...detail.otherwise.map((words) => `Measured otherwise than the aims: ${words}.`),
    ...detail.header.tolerances.notJudged,
    ...(detail.header.tolerances.doubts ?? []),
    ...(detail.withoutAim > 0 ? [`${detail.withoutAim} patches have no aim and were not judged.`] : []),
  ];
  return (
    <>
      {notices.length > 0 && <p className="notice">{notices.join(' ')}</p>}
      <div className="check-columns">
        <div style={{ display: 'grid', gap: 12, minWidth: 0 }}>
          <div className="panel">
            <table className="table tight metrics" style={{ border: 0 }}>
              <thead className="visually-hidden">
                <tr>
                  <th>State</th>
                  <th>Metric</th>
                  <th>Value and limit</th>
                  <th>Bar</th>
                  <th>Margin</th>
                </tr>
              </thead>
              <tbody>
                {detail.metrics.map((line, i) => (
                  <tr
                    key={metricName(line)}
                    className={line.worst === null ? undefined : 'pick'}
                    onClick={() => line.worst !== null && setPicked(line.worst)}
                  >
                    <td style={{ width: 20 }}>
                      <StatusShape
                        status={line.verdict as Status}
                        title={line.verdict.replaceAll('-', ' ')}
                      />
                    </td>
                    <td>
                      <button
                        type="button"
                        className="plain"
                        disabled={line.worst === null}
                        onClick={() => line.worst !== null && setPicked(line.worst)}
                        title={line.worst === null ? undefined : 'show the worst patch'}
                      >
                        {line.group === 'all' ? 'all patches' : line.group}
                      </button>{' '}
                      <span className="quiet">
                        {line.statistic} {line.quantity}
                      </span>
                    </td>
                    <td className="num">
                      <b>{metricValue(line)}</b> <span className="quiet">/ {line.limit.toFixed(1)}</span>
                    </td>
                    <td className="bar-cell">
                      {line.value === null ? (
                        <span className="quiet">no patches</span>
                      ) : (
                        <LimitBar value={line.value} limit={line.limit} status={line.verdict as Status} />
                      )}
                    </td>
                    <td className="num quiet" title="margin" key={i}>
                      {line.margin === null
                        ? ''
                        : `${line.margin < 0 ? '−' : '+'}${Math.abs(line.margin).toFixed(2)}`}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {decides.length > 0 && (
              <div className="decides">
                <h2>What decides it</h2>
                {decides.map((sentence) => (
                  <p key={sentence}>{sentence}</p>
                ))}
              </div>
            )}
          </div>
          <div className="panel">
            <header>
              <h2>Groups</h2>
            </header>
            <GroupTable detail={detail} />
          </div>
        </div>
        <div style={{ display: 'grid', gap: 12, alignContent: 'start', minWidth: 0 }}>
          <CheckSheet detail={detail} picked={picked} onPick={setPicked} />
          {/* Of the paper alone there is nothing to be told, as where a list is checked by itself. */}
          {detail.distribution.count > 1 && <DistributionPlot detail={detail} />}
          {detail.distribution.count > 1 && detail.budget !== null && <BudgetBar budget={detail.budget} />}
          {detail.white !== null && <PaperShift detail={detail} white={detail.white} />}
        </div>
      </div>
      <CheckPatches resultId={resultId} detail={detail} picked={picked} onPick={setPicked} />
      <CheckFacts detail={detail} />
    </>
  );
}
