'use client';

import { SIMULATED_CHANGES } from '@/endpoints/conditions';
import { START_WATCH } from '@/endpoints/watch';
import type { Static } from '@sinclair/typebox';
import type { WatchSurfaceView } from '@melto/services/overview/proofSurfaces';
import { send } from '@/ui/api';
import { PRINT_WEDGE } from '@/endpoints/charts';
import { drivenByInks, takesCmyk } from '@melto/core/device/process';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useMemo, useState } from 'react';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { figuresOfKept, ZERO_READINGS } from '@melto/core/watch/watchFigures';
import { PrintDialog } from '@/features/charts/PrintDialog';
import { formatDay, formatSpan } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { May } from '@/ui/May';
import type { Status } from '@/ui/StatusMark';
import { ControlChartPlot } from './ControlChartPlot';
import { SeriesList } from './SeriesList';
import { SimulatedChanges } from './SimulatedChanges';
import { StartWatchDialog } from './StartWatchDialog';
import { WatchChecks } from './WatchChecks';
import { ZeroPlot } from './ZeroPlot';

export type WatchSurfaceProps = WatchSurfaceView;

export function WatchSurface(props: WatchSurfaceProps) {
  const { condition, view, waiting } = props;
  const { watch, checks, chartsFrom, nowMs, dueMs, candidates, runs } = view;
  const [open, setOpen] = useState<'nothing' | 'print' | 'start'>('nothing');
  const [picked, setSeries] = useState<number>();
  const charts = useMemo(
    () =>
      checks.length === 0
        ? undefined
        : watchCharts(
            checks.map(({ figures }) => figuresOfKept(figures)),
            undefined,
            chartsFrom ?? undefined,
          ),
    [checks, chartsFrom],
  );
  // The series that is farthest over its limits is shown first.
  const farthest = charts?.series.findIndex((each) => each.series === charts.over[0]?.series) ?? -1;
  const series = picked ?? Math.max(0, farthest);
  const enough = Math.max(candidates.length, runs.length) >= ZERO_READINGS;
  // What the zero reading still lacks is printed at once.
  const lacking = ZERO_READINGS - candidates.length - waiting.length;
  const copies = watch === null ? Math.max(1, lacking) : 1;
  const converted = !takesCmyk(condition.process);
  const canPrint = !converted || props.hasProfile;
  const due = dueMs !== null && nowMs > dueMs;
  const last = checks.at(-1);
  const status: Status | undefined =
    watch === null
      ? undefined
      : last?.verdict === 'does-not-conform'
        ? 'does-not-conform'
        : due
          ? 'due'
          : last?.moved === true
            ? 'near'
            : 'conforms';
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Watch</h1>
        {status !== undefined && <StatusShape status={status} size={18} title={status} />}
        <p>{sentence(props)}</p>
        {enough && (
          <May act={START_WATCH}>
            <Button variant={watch === null ? 'contained' : 'outlined'} onClick={() => setOpen('start')}>
              {watch === null ? 'Start the watch' : 'Start anew'}
            </Button>
          </May>
        )}
        {canPrint && watch?.byRuns !== true && (
          <Button
            variant={watch === null && enough ? 'outlined' : 'contained'}
            onClick={() => setOpen('print')}
          >
            Print the watch wedge
          </Button>
        )}
      </div>
      {watch !== null && (
        <div className="versions">
          <span>
            Watch v{watch.version}, zero reading of {formatDay(watch.madeMs)}, {watch.zeroReadings}{' '}
            {watch.byRuns ? 'runs' : 'readings'}
          </span>
          <span className="end">
            every {watch.everyDays} d, expires after {watch.expiresDays} d; mean up to{' '}
            {watch.meanLimit.toFixed(1)}, largest up to {watch.largestLimit.toFixed(1)} ΔE00
          </span>
        </div>
      )}
      {view.stale !== null && (
        <p className="notice">
          <b>Stale.</b> {view.stale.words}{' '}
          {watch?.byRuns === true
            ? 'Start it anew by runs that were printed since.'
            : 'Print the watch wedge three times and start the watch anew.'}
        </p>
      )}
      {last?.cause !== null && last?.cause !== undefined && last.moved && (
        <p className="notice bad">
          <b>Moved.</b> {last.cause}
        </p>
      )}
      {waiting.length > 0 && (
        <p className="notice">
          On the rack:{' '}
          {waiting.map((code) => (
            <Link key={code} href={`/read/${code}`} className="mono" style={{ marginRight: 12 }}>
              {code}
            </Link>
          ))}
        </p>
      )}
      {charts !== undefined && watch !== null && (
        <>
          <div className="watch-columns">
            <SeriesList charts={charts} picked={series} onPick={setSeries} />
            <div style={{ display: 'grid', gap: 12, minWidth: 0 }}>
              <ControlChartPlot series={charts.series[series]} checks={checks} />
              <ZeroPlot checks={checks} zero={watch.zero} limit={watch.meanLimit} />
            </div>
          </div>
          <WatchChecks checks={checks} nowMs={nowMs} />
        </>
      )}
      {condition.deviceDriver !== '' && (
        <May act={SIMULATED_CHANGES}>
          <SimulatedChanges conditionId={condition.id} changes={props.changes} />
        </May>
      )}
      {open === 'start' && <StartWatchDialog {...props} onClose={() => setOpen('nothing')} />}
      {open === 'print' && (
        <PrintDialog
          title="Print the watch wedge"
          onPrint={(chosen) =>
            send(PRINT_WEDGE, {
              params: { id: condition.id },
              body: {
                ...{ kind: 'watch', paper: 'a4', reader: 'strip', ...chosen },
                ...(copies === 1 ? {} : { copies }),
                ...(converted ? { judgedBy: aimsOf(props) } : {}),
              },
            })
          }
          told={`${copies === 1 ? '' : `${copies} prints for the zero reading, each read by itself. `}42 patches in two strips, through the chain as it stands. Read both strips after their rest.`}
          points={props.points}
          conversions={props.conversions}
          frontEnd={drivenByInks(condition.process)}
          onClose={() => setOpen('nothing')}
        />
      )}
    </section>
  );
}

/** What does not take CMYK as it is prints the wedge through its profile: the aims that its zero reading used, else the first. */
function aimsOf({ view, aims, tolerances }: WatchSurfaceProps): Static<typeof PRINT_WEDGE.body>['judgedBy'] {
  return (
    (view.watch?.judgedBy as Static<typeof PRINT_WEDGE.body>['judgedBy'] | null) ?? {
      aimSetId: aims[0]?.id ?? 0,
      toleranceSetId: tolerances[0]?.id ?? 0,
      substrateCorrected: false,
      through: 'profile, absolute',
    }
  );
}

function sentence({ view, waiting, condition, hasProfile }: WatchSurfaceProps): string {
  const { watch, checks, candidates, runs, dueMs, expiresMs, nowMs } = view;
  if (!takesCmyk(condition.process) && !hasProfile)
    return 'A watch needs a profile to print its wedge through.';
  if (watch === null) {
    if (candidates.length >= ZERO_READINGS || runs.length >= ZERO_READINGS)
      return candidates.length < ZERO_READINGS
        ? `${runs.length} runs are finished: the watch can be started from three that were printed alike, or from watch wedges.`
        : `${candidates.length} readings of the watch wedge are there: start the watch from them.`;
    const left = ZERO_READINGS - candidates.length;
    return waiting.length > 0
      ? `A watch wedge waits to be read; the zero reading is the mean of ${ZERO_READINGS}.`
      : `Print and read the watch wedge ${left === ZERO_READINGS ? `${ZERO_READINGS} times` : left === 1 ? 'once more' : `${left} times more`}; the mean is the zero reading that later checks are compared with.`;
  }
  const last = checks.at(-1);
  const far =
    last === undefined ? '' : `${last.meanDeltaE.toFixed(2)} ΔE00 from the zero reading on the mean`;
  if (last?.verdict === 'does-not-conform')
    return `over its limit: ${far}, largest ${last.largestDeltaE.toFixed(2)}`;
  if (expiresMs !== null && nowMs > expiresMs) return `the last check has expired; ${far}`;
  if (dueMs !== null && nowMs > dueMs) return `a check is due since ${formatSpan(nowMs - dueMs)}; ${far}`;
  const next = dueMs === null ? '' : `; next check in ${formatSpan(dueMs - nowMs)}`;
  if (last?.moved === true) return `something has moved: ${far}${next}`;
  return `steady: ${far}${next}`;
}
