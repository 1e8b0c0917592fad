'use client';

import { send } from '@/ui/api';
import { MAKE_BALANCE } from '@/endpoints/calibration';
import { Button } from '@mui/material';
import { useState } from 'react';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import type { PressView } from '@melto/services/calibration/pressView';
import { StatusMark } from '@/ui/StatusMark';
import type { Status } from '@/ui/StatusMark';
import { BalanceFigures } from './BalanceFigures';
import { CurveFiles } from './CurveFiles';
import { FromReading } from './FromReading';
import { NeutralTable } from './NeutralTable';
import { PressFrame } from './PressFrame';

export function BalanceSurface({ view }: { view: PressView<'balance'> }) {
  const { result, reached, condition, shown } = view;
  const [files, setFiles] = useState(false);
  const ready = view.readings.filter(({ curvesResultId }) => curvesResultId !== null);
  return (
    <PressFrame
      view={view}
      title="Balance"
      sentence={<Sentence view={view} ready={ready.length} />}
      about={
        result === null
          ? undefined
          : `round ${result.summary.round}, from sheet ${result.summary.code}; replaces the aim of the curves`
      }
      print={{ kind: 'near-neutral', title: 'Near-neutral scales', through: 'in force', choice: false }}
      actions={result === null ? undefined : <Button onClick={() => setFiles(true)}>Files</Button>}
    >
      <FromReading
        calls={MAKE_BALANCE}
        readings={ready}
        onMake={(readingId) => send(MAKE_BALANCE, { params: { id: condition.id }, body: { readingId } })}
        act={result === null ? 'Balance the greys' : 'Do another round'}
        first={result === null || reached?.verdict === 'does-not-conform'}
      />
      {result !== null && (
        <>
          <BalanceFigures
            before={result.detail.judgement}
            reached={reached?.detail}
            paper={result.detail.paperLab}
          />
          {result.detail.wrong.length > 0 && (
            <p className="notice">
              Left out of sheet {result.summary.code}, since the rest of their scale contradicts them:{' '}
              {result.detail.wrong
                .map(
                  ({ scale, tone, off }) =>
                    `${scale.toUpperCase()} ${(100 * tone).toFixed(0)} % (${off.toFixed(1)} off)`,
                )
                .join(', ')}
              . Read their strips again.
            </p>
          )}
          <NeutralTable
            judgement={reached?.detail ?? result.detail.judgement}
            predicted={reached === null ? result.detail.predicted : undefined}
            title={
              reached === null ? 'Steps before the correction' : `Steps as reached on ${reached.summary.code}`
            }
          />
        </>
      )}
      {files && (
        <CurveFiles
          conditionId={condition.id}
          resultId={shown?.id}
          taken={condition.deviceFacts.curveFormats}
          onClose={() => setFiles(false)}
        />
      )}
    </PressFrame>
  );
}

function Sentence({
  view: { result, reached, inForce },
  ready,
}: {
  view: PressView<'balance'>;
  ready: number;
}) {
  if (result === null)
    return inForce === null
      ? 'Balance starts from curves: make them first.'
      : ready > 0
        ? 'A reading of the near-neutral scales is ready: balance the greys.'
        : 'Print the near-neutral scales through the curves, let them rest, and read them.';
  const judged: NeutralJudgement = reached?.detail ?? result.detail.judgement;
  const { figures, limits, extrapolated, verdict } = judged;
  const words = `wΔL* ${Math.max(figures.cmyL.mean, figures.kL.mean).toFixed(2)} and wΔCh ${figures.cmyCh.mean.toFixed(2)} on average, ${Math.max(figures.cmyL.largest, figures.cmyCh.largest, figures.kL.largest).toFixed(2)} at most; limits ${limits.mean.toFixed(1)} and ${limits.largest.toFixed(1)}`;
  if (reached === null)
    return `Before the correction: ${words}. Print the scales again to see what is reached.`;
  return (
    <span className="row" style={{ gap: 8 }}>
      <StatusMark
        status={verdict as Status}
        word={
          extrapolated && verdict !== 'not-judged'
            ? `${verdict.replaceAll('-', ' ')}, extrapolated`
            : undefined
        }
      />
      <span>{words}</span>
    </span>
  );
}
