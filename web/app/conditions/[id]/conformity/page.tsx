import { domainNow } from '@melto/services/clock';
import { conditionOf, driverOf, settingsRecord } from '@melto/services/conditions';
import { profileInForce } from '@melto/services/profiles';
import { resultView, versionsOf } from '@melto/services/versions';
import type { CheckDetail, CheckSummary } from '@melto/services/shortChecks';
import { sheetsOf } from '@melto/services/printing';
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
  const [points, versions, profile, sheets, nowMs] = await Promise.all([
    settingsRecord(services(), id),
    versionsOf(services(), id, 'conformity'),
    profileInForce(services(), id),
    sheetsOf(services(), id),
    domainNow(services()),
  ]);
  const shown =
    versions.find((version) => version.id === wanted) ??
    versions.find(({ inForce }) => inForce) ??
    versions.at(-1);
  const result =
    shown === undefined
      ? undefined
      : await resultView<CheckSummary, CheckDetail>(services(), shown.id, 'conformity');
  return (
    <ConformitySurface
      conditionId={id}
      points={points}
      conversions={driverOf(services(), condition).conversions}
      versions={versions}
      shown={shown}
      result={result}
      profileResultId={profile?.resultId}
      waiting={sheets
        .filter(({ onRack, title }) => onRack && title === 'Short check')
        .map(({ code }) => code)}
      nowMs={nowMs}
    />
  );
}
