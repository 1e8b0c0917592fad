import { chartsOf } from '@melto/services/charts/charts';
import { domainNow } from '@melto/services/kernel/clock';
import { conditionOf, driverOf, settingsRecord } from '@melto/services/ledger/conditions';
import { resultView, versionsOf } from '@melto/services/ledger/versions';
import type { ProfileDetail, ProfileSummary } from '@melto/services/profile/profiles';
import { pressForProfile } from '@melto/services/calibration/pressView';
import { readingsOf } from '@melto/services/reading/readings';
import { ProfileSurface } from '@/features/profile/ProfileSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Profile' };

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
  const [charts, points, versions, readings, nowMs, press] = await Promise.all([
    chartsOf(services(), id),
    settingsRecord(services(), id),
    versionsOf(services(), id, 'profile'),
    readingsOf(services(), id),
    domainNow(services()),
    condition.space === 'rgb' ? null : pressForProfile(services(), id),
  ]);
  const shown =
    versions.find((version) => version.id === wanted) ??
    versions.find(({ inForce }) => inForce) ??
    versions.at(-1);
  const result =
    shown === undefined
      ? undefined
      : await resultView<ProfileSummary, ProfileDetail>(services(), shown.id, 'profile');
  return (
    <ProfileSurface
      condition={condition}
      charts={charts}
      points={points}
      conversions={driverOf(services(), condition).conversions}
      versions={versions}
      shown={shown}
      result={result}
      readings={readings.filter(({ purpose, withdrawnMs }) => purpose === 'profile' && withdrawnMs === null)}
      nowMs={nowMs}
      press={press}
    />
  );
}
