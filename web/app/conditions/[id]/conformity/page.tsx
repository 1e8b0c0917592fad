import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { aimSets } from '@melto/services/conformity/aimSets';
import { sharedCode } from '@melto/services/conformity/checkReports';
import { domainNow } from '@melto/services/kernel/clock';
import { conditionOf, driverOf, settingsRecord } from '@melto/services/ledger/conditions';
import { judgeableReadings } from '@melto/services/conformity/judgeable';
import { sheetsOf } from '@melto/services/charts/printing';
import { profileInForce } from '@melto/services/profile/profiles';
import type { CheckDetail as ShortCheckDetail } from '@melto/services/conformity/shortChecks';
import { toleranceSets } from '@melto/services/conformity/toleranceSets';
import { resultView, versionsOf } from '@melto/services/ledger/versions';
import { isWatchWedge } from '@melto/services/charts/wedgeTitles';
import { ConformitySurface } from '@/features/conformity/ConformitySurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Conformity' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ version?: string }>;
}) {
  const id = Number((await params).id);
  const wanted = Number((await searchParams).version);
  const condition = await conditionOf(services(), id);
  const [points, versions, profile, sheets, aims, tolerances, readings, nowMs] = await Promise.all([
    settingsRecord(services(), id),
    versionsOf(services(), id, 'conformity'),
    profileInForce(services(), id),
    sheetsOf(services(), id),
    aimSets(services()),
    toleranceSets(services()),
    judgeableReadings(services(), id),
    domainNow(services()),
  ]);
  const shown =
    versions.find((version) => version.id === wanted) ??
    versions.find(({ inForce }) => inForce) ??
    versions.at(-1);
  const result =
    shown === undefined
      ? undefined
      : await resultView<unknown, CheckDetail | ShortCheckDetail>(services(), shown.id, 'conformity');
  return (
    <ConformitySurface
      condition={condition}
      points={points}
      conversions={driverOf(services(), condition).conversions}
      versions={versions}
      shown={shown}
      result={result}
      sharedCode={shown === undefined ? null : await sharedCode(services(), shown.id)}
      profileResultId={profile?.resultId}
      hasCurves={readings.hasCurves}
      aims={aims}
      tolerances={tolerances}
      readings={readings.readings}
      waiting={sheets
        .filter(({ onRack, title }) => onRack && (title === 'Short check' || title.endsWith('wedge')))
        .filter((sheet) => !isWatchWedge(sheet))
        .map(({ code }) => code)}
      wedges={sheets.filter(({ title }) => title.endsWith('wedge')).map(({ code }) => code)}
      nowMs={nowMs}
    />
  );
}
