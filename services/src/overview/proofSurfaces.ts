import { isSpot } from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { spotsOverTime } from '@melto/core/conformity/spotsOverTime';
import type { SpotsOverTime } from '@melto/core/conformity/spotsOverTime';
import type { SimulatedChange } from '@melto/core/device/printPath';
import { listRack } from '@melto/store/prints';
import { findHead, findResult, listResultsOfShape } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { aimSets } from '../conformity/aimSets.ts';
import type { AimSetView } from '../conformity/aimSets.ts';
import { newestJobCheck } from '../conformity/jobCheck.ts';
import type { JobCheckView } from '../conformity/jobCheck.ts';
import { publicCode } from '../kernel/publicLink.ts';
import { judgeableReadings } from '../conformity/judgeable.ts';
import { toleranceSets } from '../conformity/toleranceSets.ts';
import type { ToleranceSetView } from '../conformity/toleranceSets.ts';
import type { Context } from '../kernel/context.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { SHORT_CHECK } from '../ledger/kinds/shortCheckKind.ts';
import type { ShortCheckDetail } from '../ledger/kinds/shortCheckKind.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { sheetsOf } from '../charts/rack.ts';
import { watchView } from '../watch/watchView.ts';
import type { WatchView } from '../watch/watchView.ts';
import { surfaceView } from './surfaces.ts';
import type { SurfaceView } from './surfaces.ts';

/** What checks are printed for and judged by. */
interface Judging {
  readonly aims: readonly AimSetView[];
  readonly tolerances: readonly ToleranceSetView[];
  readonly profileResultId: number | undefined;
}

async function judging(context: Context, conditionId: number): Promise<Judging> {
  const [aims, tolerances, profile] = await Promise.all([
    aimSets(context),
    toleranceSets(context),
    findHead(context.database, conditionId, 'profile'),
  ]);
  return { aims, tolerances, profileResultId: profile?.id };
}

/** Sheets on the rack that a surface speaks of. */
const WAITING = 100;

export interface ConformitySurfaceView extends SurfaceView, Judging {
  /** The check that is shown: against aims, or a short one. */
  readonly result: { readonly row: ResultRow; readonly detail: CheckDetail | ShortCheckDetail } | undefined;
  /** Spot colours of the check that is shown over those before it that judged the same ones. */
  readonly spots: SpotsOverTime | undefined;
  readonly sharedCode: string | null;
  readonly curves: Awaited<ReturnType<typeof judgeableReadings>>['curves'];
  readonly readings: Awaited<ReturnType<typeof judgeableReadings>>['readings'];
  /** What the newest picture of a job says of its way. */
  readonly jobCheck: JobCheckView | undefined;
  /** Pictures of jobs that wait to be read. */
  readonly waitingJobs: readonly { readonly code: string; readonly job: string }[];
  /** Codes of checks that wait to be read, and of wedges that were printed. */
  readonly waiting: readonly string[];
  readonly wedges: readonly string[];
}

export async function conformitySurface(
  context: Context,
  conditionId: number,
  wanted: number,
): Promise<ConformitySurfaceView> {
  const view = await surfaceView(context, conditionId, 'conformity', wanted);
  const { shown } = view;
  const [by, readings, rack, sheets, result, code, jobCheck] = await Promise.all([
    judging(context, conditionId),
    judgeableReadings(context, conditionId),
    listRack(context.database, { limit: WAITING }, conditionId),
    sheetsOf(context, conditionId),
    shown === undefined ? undefined : checkShown(context, shown.id),
    shown === undefined ? null : publicCode(context, { resultId: shown.id }),
    newestJobCheck(context, conditionId),
  ]);
  return {
    ...view,
    ...by,
    ...readings,
    result,
    spots: await spotsBefore(context, result),
    sharedCode: code,
    jobCheck,
    waitingJobs: rack.rows
      .filter(({ purpose }) => purpose === 'job')
      .map(({ code: sheet, processName }) => ({ code: sheet, job: processName })),
    waiting: rack.rows
      .filter(({ purpose, kind }) => purpose === 'short-check' || (purpose === 'wedge' && kind !== 'watch'))
      .map((sheet) => sheet.code),
    wedges: sheets.rows.filter(({ purpose }) => purpose === 'wedge').map((sheet) => sheet.code),
  };
}

async function checkShown({ database }: Context, id: number): Promise<ConformitySurfaceView['result']> {
  const row = await findResult(database, id);
  if (row === undefined) return undefined;
  const { detail, ...rest } = row;
  return {
    row: rest,
    detail:
      row.shape === AIM_CHECK.shape
        ? storedOf(AIM_CHECK, row, detail).detail
        : storedOf(SHORT_CHECK, row, detail).detail,
  };
}

/** Checks of half a year where one is made each week. */
const MOST_CHECKS = 27;

/** Spot colours of a check over those before it, on its condition. */
async function spotsBefore(
  { database }: Context,
  result: ConformitySurfaceView['result'],
): Promise<SpotsOverTime | undefined> {
  if (result === undefined || !('kind' in result.detail) || !result.detail.patches.some(isSpot))
    return undefined;
  const { conditionId, id } = result.row;
  const rows = await listResultsOfShape(database, conditionId, AIM_CHECK.shape, MOST_CHECKS);
  return spotsOverTime(
    rows
      .filter((row) => row.id <= id)
      .map((row) => ({ madeMs: row.madeMs, patches: storedOf(AIM_CHECK, row, row.detail).detail.patches })),
  );
}

export interface WatchSurfaceView extends SurfaceView, Judging {
  readonly view: WatchView;
  readonly hasProfile: boolean;
  readonly changes: readonly SimulatedChange[];
  readonly waiting: readonly string[];
}

export async function watchSurface(context: Context, conditionId: number): Promise<WatchSurfaceView> {
  const [surface, by, view, changes, rack] = await Promise.all([
    surfaceView(context, conditionId, 'watch', NaN),
    judging(context, conditionId),
    watchView(context, conditionId),
    context.circumstances(context, conditionId),
    listRack(context.database, { limit: WAITING }, conditionId),
  ]);
  return {
    ...surface,
    ...by,
    view,
    changes,
    hasProfile: by.profileResultId !== undefined,
    waiting: rack.rows.filter(({ kind }) => kind === 'watch').map(({ code }) => code),
  };
}
