import { redirect } from 'next/navigation';
import { conditionOf } from '@melto/services/ledger/conditions';
import { pressForProfile } from '@melto/services/calibration/pressView';
import type { ProfileDetail, ProfileSummary } from '@melto/services/profile/profiles';
import { readingsOf } from '@melto/services/reading/readings';
import { resultView, versionsOf } from '@melto/services/ledger/versions';
import { BuildPage } from '@/features/profile/build/BuildPage';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Build a profile' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  const condition = await conditionOf(services(), id);
  const [readings, versions, press] = await Promise.all([
    readingsOf(services(), id),
    versionsOf(services(), id, 'profile'),
    pressForProfile(services(), id),
  ]);
  const complete = readings.filter(
    ({ purpose, withdrawnMs, finishedMs }) =>
      purpose === 'profile' && withdrawnMs === null && finishedMs !== null,
  );
  const head = versions.find(({ inForce, borrowedFrom }) => inForce && borrowedFrom === null);
  const before =
    head === undefined
      ? undefined
      : await resultView<ProfileSummary, ProfileDetail>(services(), head.id, 'profile');
  const chosen = before === undefined ? [] : [before.detail.choices.readingId];
  if (condition.space !== 'cmyk' || complete.every(({ patches }) => patches < 150))
    redirect(`/conditions/${id}/profile`);
  return (
    <BuildPage
      condition={condition}
      readings={complete}
      chosen={chosen.filter((own) => complete.some((row) => row.id === own))}
      press={press}
    />
  );
}
