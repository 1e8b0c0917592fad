import { leastPatches, profiledProcess } from '@melto/core/characterise/leastPatches';
import { drivenByInks } from '@melto/core/device/process';
import { redirect } from 'next/navigation';
import { buildSurface } from '@melto/services/overview/surfaces';
import { BuildPage } from '@/features/profile/build/BuildPage';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Build a profile' };

export default async function Page(page: PageParams) {
  const view = await shownPage(page, buildSurface, 'specialist');
  const { process } = view.condition;
  if (
    !profiledProcess(process) ||
    !drivenByInks(process) ||
    view.readings.every(({ patches }) => patches < leastPatches(process))
  )
    redirect(`/conditions/${view.condition.id}/profile`);
  return <BuildPage {...view} />;
}
