import type { SeparationChoice } from '@melto/core/separate/separation';
import { drivenByInks } from '@melto/core/device/process';
import { pressForProfile } from '../calibration/pressView.ts';
import type { PressForProfile } from '../calibration/pressView.ts';
import { chartStates } from '../charts/chartStates.ts';
import type { ChartState } from '../charts/chartStates.ts';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { conditionOf, driverOf } from '../ledger/conditions.ts';
import { printPoints } from '../ledger/deviceDuty.ts';
import type { ConditionRow, SettingsPoint } from '../ledger/conditions.ts';
import type { LinkName } from '../ledger/links.ts';
import { versionsOf } from '../ledger/versions.ts';
import type { VersionView } from '../ledger/versions.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import type { ProfileDetail, ProfileSummary } from '../ledger/kinds/profileKind.ts';
import { GIVEN_PROFILE } from '../ledger/kinds/givenProfileKind.ts';
import type { GivenProfileDetail, GivenProfileSummary } from '../ledger/kinds/givenProfileKind.ts';
import { resultRow, storedAs } from '../ledger/storedResult.ts';
import type { StoredResult } from '../ledger/storedResult.ts';
import { listCompleteReadings } from '@melto/store/readings';
import type { ReadingOfCondition } from '../reading/readingView.ts';

/** What every surface of a link shows of its condition. */
export interface SurfaceView {
  readonly condition: ConditionRow;
  readonly points: readonly SettingsPoint[];
  readonly conversions: readonly string[];
  readonly versions: readonly VersionView[];
  /** The version that the address asks for, else the one in force, else the latest. */
  readonly shown: VersionView | undefined;
  readonly nowMs: number;
}

export async function surfaceView(
  context: Context,
  conditionId: number,
  link: LinkName,
  wanted: number,
): Promise<SurfaceView> {
  const condition = await conditionOf(context, conditionId);
  const [points, versions, nowMs] = await Promise.all([
    printPoints(context, condition),
    versionsOf(context, conditionId, link),
    domainNow(context),
  ]);
  return {
    condition,
    points,
    versions,
    conversions: driverOf(context, condition).conversions,
    shown:
      versions.find(({ id }) => id === wanted) ?? versions.find(({ inForce }) => inForce) ?? versions.at(-1),
    nowMs,
  };
}

/** Latest charts that its page lists. */
const CHARTS = 8;
/** Latest readings that a profile can be built from. */
const READINGS = 60;

export interface ProfileSurfaceView extends SurfaceView {
  readonly charts: readonly ChartState[];
  /** The version that is shown, where it was built here. */
  readonly result: StoredResult<ProfileSummary, ProfileDetail> | undefined;
  /** The version that is shown, where somebody else has built it. */
  readonly given: StoredResult<GivenProfileSummary, GivenProfileDetail> | undefined;
  readonly readings: readonly ReadingOfCondition[];
  readonly press: PressForProfile | null;
}

export async function profileSurface(
  context: Context,
  conditionId: number,
  wanted: number,
): Promise<ProfileSurfaceView> {
  const view = await surfaceView(context, conditionId, 'profile', wanted);
  const { shown } = view;
  const [charts, readings, press, own] = await Promise.all([
    chartStates(context, conditionId, 'profile', CHARTS),
    listCompleteReadings(context.database, conditionId, { purposes: ['profile'], limit: READINGS }),
    drivenByInks(view.condition.process) ? pressForProfile(context, conditionId) : null,
    shown === undefined ? undefined : resultRow(context, shown.id),
  ]);
  const given = own?.shape === GIVEN_PROFILE.shape ? storedAs(own, GIVEN_PROFILE) : undefined;
  const result = own?.shape === PROFILE.shape ? storedAs(own, PROFILE) : undefined;
  return { ...view, charts, readings, press, result, given };
}

export interface BuildView {
  readonly condition: ConditionRow;
  readonly readings: readonly ReadingOfCondition[];
  /** Readings that the profile in force was built from. */
  readonly chosen: readonly number[];
  /** The separation of the profile in force. */
  readonly separation: SeparationChoice | null;
  readonly press: PressForProfile;
}

/** What a profile of inks is built from and with. */
export async function buildSurface(context: Context, conditionId: number): Promise<BuildView> {
  const { condition, readings, result, press } = await profileSurface(context, conditionId, NaN);
  const chosen = result?.detail.choices.readingId;
  return {
    condition,
    readings,
    chosen: readings.some(({ id }) => id === chosen) && chosen !== undefined ? [chosen] : [],
    separation: result?.detail.choices.separation ?? null,
    press: press ?? (await pressForProfile(context, conditionId)),
  };
}
