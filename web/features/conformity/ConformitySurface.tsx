'use client';

import { PRINT_SHORT_CHECK, PRINT_JOB_CHECK, PRINT_WEDGE } from '@/endpoints/charts';
import { JUDGE } from '@/endpoints/conformity';
import type { ConformitySurfaceView } from '@melto/services/overview/proofSurfaces';
import { drivenByLight, takesCmyk } from '@melto/core/device/process';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useState } from 'react';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { reasonSentence, verdictSentence } from '@melto/core/conformity/checkWords';
import type { ShortCheckDetail } from '@melto/services/ledger/kinds/shortCheckKind';
import { Versions } from '@/features/profile/Versions';
import { StatusShape } from '@/ui/StatusMark';
import { May } from '@/ui/May';
import type { Status } from '@/ui/StatusMark';
import { AimCheckView } from './AimCheckView';
import { JobCheckDialog } from './JobCheckDialog';
import { JobChecks } from './JobChecks';
import { JudgeDialog } from './JudgeDialog';
import { ReportMenu } from './ReportMenu';
import { ResultNote } from './ResultNote';
import { ShortCheckDialog } from './ShortCheckDialog';
import { shortCheckSentence, ShortCheckView } from './ShortCheckView';
import { SpotsOverTimePanel } from './SpotsOverTimePanel';
import { WedgeDialog } from './WedgeDialog';

/** A complete reading of CMYK values that could be judged. */
export interface JudgeableReading {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly finishedMs: number;
}

export type ConformitySurfaceProps = ConformitySurfaceView;

type Open = 'nothing' | 'wedge' | 'short check' | 'judge' | 'job';

export function ConformitySurface(props: ConformitySurfaceProps) {
  const { condition, versions, shown, result, profileResultId, waiting, wedges, nowMs, readings } = props;
  const [open, setOpen] = useState<Open>('nothing');
  const close = (): void => setOpen('nothing');
  const verdict = verdictOf(result?.detail);
  // An RGB driver takes CMYK aims through its profile only.
  const canPrint = takesCmyk(condition.process) || profileResultId !== undefined;
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Conformity</h1>
        {verdict !== undefined && <StatusShape status={verdict as Status} size={18} />}
        <p>{sentence(props, canPrint)}</p>
        {result !== undefined && <ReportMenu resultId={result.row.id} sharedCode={props.sharedCode} />}
        {readings.length > 0 && (
          <May act={JUDGE}>
            <Button onClick={() => setOpen('judge')}>Judge a reading</Button>
          </May>
        )}
        {profileResultId !== undefined && (
          <May act={PRINT_SHORT_CHECK}>
            <Button onClick={() => setOpen('short check')}>Short check</Button>
          </May>
        )}
        {profileResultId !== undefined && (
          <May act={PRINT_JOB_CHECK}>
            <Button onClick={() => setOpen('job')}>Job check</Button>
          </May>
        )}
        {canPrint && (
          <May act={PRINT_WEDGE}>
            <Button variant="contained" onClick={() => setOpen('wedge')}>
              New check
            </Button>
          </May>
        )}
      </div>
      {versions.length > 0 && (
        <Versions
          versions={versions}
          shown={shown}
          nowMs={nowMs}
          path={`/conditions/${condition.id}/conformity`}
        >
          {result !== undefined && about(result.detail)}
        </Versions>
      )}
      {shown !== undefined && shown.stale !== null && (
        <p className="notice">
          <b>Stale.</b> {shown.stale.words} Print a new check.
        </p>
      )}
      {waiting.length > 0 && (
        <p className="notice">
          On the rack:{' '}
          {waiting.map((code) => (
            <span key={code} style={{ marginRight: 20 }}>
              <Link href={`/read/${code}`} className="mono">
                {code}
              </Link>{' '}
              <span className="quiet small">
                to place on a proof: <a href={`/api/sheets/${code}/file?format=pdf`}>PDF as sent</a>
                {!takesCmyk(condition.process) && wedges.includes(code) && (
                  <>
                    , <a href={`/api/sheets/${code}/file?format=pdf&asked=1`}>PDF in CMYK</a>
                  </>
                )}
              </span>
            </span>
          ))}
        </p>
      )}
      <JobChecks check={props.jobCheck} waiting={props.waitingJobs} nowMs={nowMs} />
      {profileResultId !== undefined && (
        <p className="small">
          <Link href={`/conditions/${condition.id}/eye`}>Eye’s check</Link>{' '}
          <span className="quiet">a printed page beside what it should look like</span>
        </p>
      )}
      {result !== undefined && (
        <ResultNote key={`note ${result.row.id}`} id={result.row.id} note={result.row.note} />
      )}
      {props.spots !== undefined && <SpotsOverTimePanel spots={props.spots} />}
      {result !== undefined &&
        ('kind' in result.detail ? (
          <AimCheckView key={result.row.id} resultId={result.row.id} detail={result.detail} />
        ) : (
          <ShortCheckView row={result.row} detail={result.detail} />
        ))}
      {open === 'job' && (
        <JobCheckDialog conditionId={condition.id} simulated={props.conversions.length > 0} onClose={close} />
      )}
      {open === 'wedge' && <WedgeDialog {...props} onClose={close} />}
      {open === 'judge' && <JudgeDialog {...props} onClose={close} />}
      {open === 'short check' && profileResultId !== undefined && (
        <ShortCheckDialog {...props} profileResultId={profileResultId} onClose={close} />
      )}
    </section>
  );
}

function verdictOf(detail: CheckDetail | ShortCheckDetail | undefined): string | undefined {
  if (detail === undefined) return undefined;
  return 'kind' in detail ? detail.verdict : detail.check.verdict;
}

function about(detail: CheckDetail | ShortCheckDetail): string {
  if (!('kind' in detail))
    return `${detail.check.limits.name}, ${detail.header.mode}, profile ${detail.header.profile}`;
  const { header, substrateCorrected } = detail;
  return `${header.tolerances.name} against ${header.aims.name}, ${substrateCorrected ? 'substrate-corrected' : 'paper as measured'}, ${header.measured.mode ?? ''}`;
}

function sentence({ result, condition, waiting }: ConformitySurfaceProps, canPrint: boolean): string {
  if (result !== undefined) {
    const { detail } = result;
    return 'kind' in detail
      ? `${verdictSentence(detail)}: ${reasonSentence(detail).split('; ').slice(0, 2).join('; ')}`
      : shortCheckSentence(detail.check);
  }
  if (waiting.length > 0) return 'A check waits to be read.';
  if (!canPrint) return 'There is no profile yet to be checked.';
  return drivenByLight(condition.process)
    ? 'A control wedge against aims, or one strip of thirty colours, tells whether prints reach what was asked.'
    : 'A control wedge tells whether prints are what a standard or your house asks for.';
}
